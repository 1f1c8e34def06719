/** Figures of drawing and exporting one canvas. */
import path from 'node:path';
import { similarity } from '../tests/ssim';
import { peakMemory } from './browser-memory';
import {
  BITS,
  ffmpeg,
  ffmpegSeconds,
  grainyMaster,
  inHarness,
  loopedMaster,
  MASTER,
  result,
  SECONDS,
  work,
} from './material';
import type { Report } from './report';

/** Raw frames that the kernel and ffmpeg scale. */
const RAW_FRAMES = 60;
const ROUNDS = 15;
const LONG_SECONDS = 300;

/** Scaling alone, in one thread. */
export async function kernel(report: Report): Promise<void> {
  const raw = path.join(work, 'raw.yuv');
  ffmpeg('-i', MASTER, '-frames:v', String(RAW_FRAMES), '-f', 'rawvideo', raw);
  const milliseconds = await inHarness(raw, (page) =>
    page.evaluate((rounds) => window.bench.kernelTime(rounds), ROUNDS),
  );
  const input = ['-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', '1920x1080', '-i', raw];
  const single = ['-threads', '1', '-filter_threads', '1', ...input];
  const filter = ['-vf', 'crop=608:1080:656:0,scale=1080:1920:flags=lanczos'];
  const scaled = ffmpegSeconds([...single, ...filter, '-f', 'null', '-'], ROUNDS);
  const read = ffmpegSeconds([...single, '-f', 'null', '-'], ROUNDS);
  const reference = RAW_FRAMES / (scaled - read);
  const mine = 1000 / milliseconds;
  report.line('kernel', mine, 'frames/s', reference, mine / reference, '0.9 or more');
}

const FILL = 'crop=608:1080,scale=1080:1920:flags=lanczos';

/** From a stored master to a finished file, of the drawn demo film and of a film with grain. */
export async function wholeExport(report: Report): Promise<void> {
  const frames = Math.round((SECONDS * 24000) / 1001);
  const drawn = await againstEncoder(MASTER, frames);
  report.line(
    'export of 20 s',
    drawn.mine,
    'frames/s',
    drawn.theirs,
    drawn.mine / drawn.theirs,
    '1.0 or more',
  );
  // The same window for both: 612×1080 at 654 scaled by 16/9 and cropped by 4 lies at 656.25.
  const sited = 'in_h_chr_pos=0:out_h_chr_pos=0:in_v_chr_pos=128:out_v_chr_pos=128';
  const sameWindow = `crop=612:1080:654:0,scale=1088:1920:flags=lanczos:${sited},crop=1080:1920:4:0`;
  const ours = similarity(result, MASTER, `trim=end_frame=${frames},${sameWindow}`).mean;
  const reference = similarity(drawn.reference, MASTER, `trim=end_frame=${frames},${FILL}`).mean;
  report.line('export SSIM', ours, '', reference, ours / reference);
  const { mine, theirs } = await againstEncoder(
    grainyMaster('grainy-export.mp4', SECONDS, 120),
    SECONDS * 30,
  );
  report.line('export of 20 s, grainy', mine, 'frames/s', theirs, mine / theirs, '1.6 or more');
}

/** Frames a second of our export and of ffmpeg's, which is left as a file; the best of two each. */
async function againstEncoder(
  master: string,
  frames: number,
): Promise<{ mine: number; theirs: number; reference: string }> {
  const times: number[] = [];
  for (let run = 0; run < 2; run++) {
    const found = await inHarness(master, async (page) => {
      const made = await page.evaluate(([s, b]) => window.bench.exportChosen(s, b), [SECONDS, BITS] as const);
      await page.evaluate(() => window.bench.sendResult());
      return made;
    });
    times.push(found.milliseconds / 1000);
  }
  const reference = path.join(work, 'reference.mp4');
  const picture = ['-frames:v', String(frames), '-vf', FILL, '-c:v', 'libx264', '-preset', 'veryfast'];
  const rates = ['-b:v', String(BITS), '-c:a', 'aac', '-b:a', '160k', '-shortest'];
  const seconds = ffmpegSeconds(['-i', master, ...picture, ...rates, reference], 2);
  return { mine: frames / Math.min(...times), theirs: frames / seconds, reference };
}

/** Measures whether a long export takes more memory than a short one. */
export async function memory(report: Report): Promise<void> {
  const peak = (file: string, seconds: number) =>
    inHarness(file, (page) =>
      peakMemory('chromium', () =>
        page.evaluate(([s, b]) => window.bench.exportChosen(s, b), [seconds, BITS] as const),
      ),
    );
  const short = await peak(MASTER, SECONDS);
  const whole = await peak(loopedMaster('long.mp4', LONG_SECONDS), LONG_SECONDS);
  report.line('peak memory of 5 min', whole, 'MB', short, whole / short, '1.2 or less');
}
