/** `npm run bench`: figures of this machine, each beside a reference of the same run. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import path from 'node:path';
import { similarity } from '../tests/ssim';
import { peakMemory } from './browser-memory';
import { openHarness } from './harness';

const MASTER = 'public/demo/kite-day.mp4';
const BITS = 8_000_000;
const SECONDS = 20;
/** Raw frames that the kernel and ffmpeg scale. */
const RAW_FRAMES = 60;
const LONG_SECONDS = 300;

const work = mkdtempSync(path.join(tmpdir(), 'bench-'));
const result = path.join(work, 'result.mp4');
const lines: {
  name: string;
  value: number;
  unit: string;
  reference: number;
  ratio: number;
  target: string;
}[] = [];

function line(
  name: string,
  value: number,
  unit: string,
  reference: number,
  ratio: number,
  target = '',
): void {
  lines.push({ name, value, unit, reference, ratio, target });
  console.log(`${name} ${value.toFixed(3)} ${unit} (${reference.toFixed(3)}, ${ratio.toFixed(2)})`);
}

/** Seconds of wall time that an ffmpeg run takes; the best of three, since other work on the machine only adds. */
function ffmpegSeconds(args: string[], runs = 3): number {
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    const { status, stderr } = spawnSync('ffmpeg', ['-y', '-v', 'error', ...args], { encoding: 'utf8' });
    if (status !== 0) throw new Error(stderr);
    return (performance.now() - start) / 1000;
  });
  return Math.min(...times);
}

async function kernel(): Promise<void> {
  const raw = path.join(work, 'raw.yuv');
  const input = ['-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-s', '1920x1080', '-i', raw];
  const one = ['-threads', '1', '-filter_threads', '1'];
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-i',
    MASTER,
    '-frames:v',
    String(RAW_FRAMES),
    '-f',
    'rawvideo',
    raw,
  ]);
  const harness = await openHarness(result);
  await harness.page.setInputFiles('input', raw);
  const milliseconds = await harness.page.evaluate(() => window.bench.kernelTime(15));
  await harness.close();
  const filter = ['-vf', 'crop=608:1080:656:0,scale=1080:1920:flags=lanczos'];
  const scaled = ffmpegSeconds([...one, ...input, ...filter, '-f', 'null', '-']);
  const read = ffmpegSeconds([...one, ...input, '-f', 'null', '-']);
  const reference = RAW_FRAMES / (scaled - read);
  line('kernel', 1000 / milliseconds, 'frames/s', reference, 1000 / milliseconds / reference, '0.7 or more');
}

async function wholeExport(): Promise<void> {
  const frames = Math.round((SECONDS * 24000) / 1001);
  const times: number[] = [];
  for (let run = 0; run < 2; run++) {
    const harness = await openHarness(result);
    await harness.page.setInputFiles('input', MASTER);
    const found = await harness.page.evaluate(([s, b]) => window.bench.exportChosen(s, b), [
      SECONDS,
      BITS,
    ] as const);
    times.push(found.milliseconds / 1000);
    await harness.page.evaluate(() => window.bench.sendResult());
    await harness.close();
  }
  const reference = path.join(work, 'reference.mp4');
  const crop = 'crop=608:1080,scale=1080:1920:flags=lanczos';
  const seconds = ffmpegSeconds(
    [
      '-i',
      MASTER,
      '-frames:v',
      String(frames),
      '-vf',
      crop,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-b:v',
      String(BITS),
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      '-shortest',
      reference,
    ],
    2,
  );
  const mine = Math.min(...times);
  line('export of 20 s', frames / mine, 'frames/s', frames / seconds, seconds / mine, '1.0 or more');
  // The same window for both: 612×1080 at 654 scaled by 16/9 and cropped by 4 lies at 656.25.
  const uncompressed = `trim=end_frame=${frames},crop=612:1080:654:0,scale=1088:1920:flags=lanczos:in_h_chr_pos=0:out_h_chr_pos=0:in_v_chr_pos=128:out_v_chr_pos=128,crop=1080:1920:4:0`;
  const ours = similarity(result, MASTER, uncompressed).mean;
  const theirs = similarity(reference, MASTER, `trim=end_frame=${frames},${crop}`).mean;
  line('export SSIM', ours, '', theirs, ours / theirs);
}

async function memory(): Promise<void> {
  const long = path.join(work, 'long.mp4');
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-stream_loop',
    '7',
    '-i',
    MASTER,
    '-c',
    'copy',
    '-t',
    String(LONG_SECONDS),
    long,
  ]);
  const peak = async (file: string, seconds: number) => {
    const harness = await openHarness(result);
    await harness.page.setInputFiles('input', file);
    const found = await peakMemory('chromium', () =>
      harness.page.evaluate(([s, b]) => window.bench.exportChosen(s, b), [seconds, BITS] as const),
    );
    await harness.close();
    return found;
  };
  const short = await peak(MASTER, SECONDS);
  const whole = await peak(long, LONG_SECONDS);
  line('peak memory of 5 min', whole, 'MB', short, whole / short, '1.2 or less');
}

function report(): string {
  const rows = lines.map(
    ({ name, value, unit, reference, ratio, target }) =>
      `| ${name} | ${value.toFixed(3)} ${unit} | ${reference.toFixed(3)} ${unit} | ${ratio.toFixed(2)} | ${target} |`,
  );
  const [cpu] = cpus();
  return [
    '# Benchmarks',
    '',
    'Written by `npm run bench`. Each figure stands beside a reference of the same run; the ratio is what counts.',
    '',
    `${new Date().toISOString().slice(0, 10)}, ${cpus().length} cores of ${cpu?.model.trim() ?? 'an unknown processor'}.`,
    '',
    '| what | figure | reference | ratio | target |',
    '|---|---|---|---|---|',
    ...rows,
    '',
    '- **kernel**: 1920×1080 to 1080×1920 fill, in headless Chromium, copying each frame in; against ffmpeg',
    '  `crop,scale=flags=lanczos` with one thread on the same raw frames, less the time of reading them.',
    '- **export of 20 s**: decode, kernel, H.264 and AAC at 8 Mb/s in headless Chromium; against',
    '  `ffmpeg -vf crop,scale=flags=lanczos -c:v libx264 -preset veryfast` at the same bit rate.',
    '- **export SSIM**: each against the uncompressed frames of its own window; the reference is the ffmpeg export.',
    '- **peak memory**: all browser processes (PSS) while 5 minutes are exported; the reference is 20 seconds.',
    '',
  ].join('\n');
}

async function main(): Promise<void> {
  await kernel();
  await wholeExport();
  await memory();
  writeFileSync('docs/benchmarks.md', report());
  rmSync(work, { recursive: true });
}

void main();
