/** Compares the browser's own H.264 with libx264 at the bitrate that it really used. */
import path from 'node:path';
import { probe } from '../tests/make-clip';
import { psnr } from '../tests/psnr';
import { similarity } from '../tests/ssim';
import { ffmpeg, inHarness, MASTER, result, work } from './material';
import type { Report } from './report';

const SECONDS = 8;
const FRAMES = Math.round((SECONDS * 24000) / 1001);
const ASKED = [3, 6, 12];
/** Chroma siting for both: 612×1080 at 654, scaled by 16/9 and cropped by 4, is the window at 656.25. */
const SITED = 'in_h_chr_pos=0:out_h_chr_pos=0:in_v_chr_pos=128:out_v_chr_pos=128';
const WINDOW = `crop=612:1080:654:0,scale=1088:1920:flags=lanczos:${SITED},crop=1080:1920:4:0`;

/** SSIM and PSNR in luma, on a drawn film and on one with grain. */
export async function encoder(report: Report): Promise<void> {
  const grainy = path.join(work, 'grainy-24.mp4');
  const grain = [
    '-vf',
    'noise=alls=7:allf=t',
    '-c:v',
    'libx264',
    '-preset',
    'fast',
    '-crf',
    '14',
    '-c:a',
    'copy',
  ];
  ffmpeg('-t', String(SECONDS + 1), '-i', MASTER, ...grain, grainy);
  for (const [name, film] of [
    ['drawn', MASTER],
    ['grainy', grainy],
  ] as const) {
    for (const asked of ASKED) await compare(report, `${name}, ${asked} Mb/s asked`, film, asked * 1e6);
  }
}

async function compare(report: Report, name: string, film: string, bits: number): Promise<void> {
  await inHarness(film, async (page) => {
    await page.evaluate(([s, b]) => window.bench.exportChosen(s, b), [SECONDS, bits] as const);
    await page.evaluate(() => window.bench.sendResult());
  });
  const used = Number(probe(result)[0]?.bit_rate);
  const theirs = path.join(work, 'x264.mp4');
  const rate = ['-b:v', String(used), '-g', '48'];
  const picture = [
    '-frames:v',
    String(FRAMES),
    '-vf',
    WINDOW,
    '-an',
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
  ];
  ffmpeg('-i', film, ...picture, ...rate, theirs);
  const wanted = `trim=end_frame=${FRAMES},${WINDOW}`;
  const label = `${name}, ${(used / 1e6).toFixed(1)} used`;
  const [ssim, other] = [result, theirs].map((file) => similarity(file, film, wanted, 'Y').mean);
  report.line(`SSIM, ${label}`, ssim ?? 0, '', other ?? 0, (ssim ?? 0) / (other ?? 1));
  const [noise, least] = [result, theirs].map((file) => psnr(file, film, 'y', wanted));
  report.line(`PSNR, ${label}`, noise ?? 0, 'dB', least ?? 0, (noise ?? 0) / (least ?? 1));
}
