import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { drawn } from '../../../tests/soak';
import type { FrameRate } from '../time/frame-rate';
import { findMinLevel } from './level';

const SIZES: [number, number][] = [
  [176, 144],
  [352, 288],
  [640, 360],
  [720, 576],
  [1080, 1080],
  [1280, 720],
  [1080, 1350],
  [1080, 1920],
  [1920, 1080],
  [2160, 2160],
  [2048, 1152],
  [3840, 2160],
];
const STREAMS: [FrameRate, number][] = [
  [{ num: 24000, den: 1001 }, 1_000_000],
  [{ num: 25, den: 1 }, 3_000_000],
  [{ num: 30, den: 1 }, 12_500_000],
  [{ num: 60, den: 1 }, 24_000_000],
  [{ num: 120, den: 1 }, 60_000_000],
];

// Outside reference: libx264, which picks the level of a stream by the same table (ITU-T H.264 A.3).
describe('the least level of a stream', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'levels-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  function encoded(width: number, height: number, { num, den }: FrameRate, bits: number): number {
    const file = path.join(folder, 'one.mp4');
    const source = `color=gray:size=${width}x${height}:rate=${num}/${den}`;
    // One reference picture and a small buffer, so that nothing but size, rate and bits decides.
    const settings = `ref=1:bframes=0:vbv-maxrate=${bits / 1000}:vbv-bufsize=${bits / 2000}`;
    const codec = ['-c:v', 'libx264', '-preset', 'superfast', '-profile:v', 'high', '-x264-params', settings];
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      source,
      '-frames:v',
      '1',
      ...codec,
      file,
    ]);
    const asked = ['-v', 'error', '-show_entries', 'stream=level', '-of', 'csv=p=0', file];
    return Number(execFileSync('ffprobe', asked, { encoding: 'utf8' }));
  }

  it.each(drawn(SIZES, 5))('is that of libx264 at %i×%i', (width, height) => {
    for (const [rate, bits] of STREAMS) {
      const level = findMinLevel({ width, height }, rate, bits);
      expect([rate.num / rate.den, bits, level]).toEqual([
        rate.num / rate.den,
        bits,
        encoded(width, height, rate, bits),
      ]);
    }
  });
});
