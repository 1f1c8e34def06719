import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { seeded } from '../../../tests/soak';
import { type GreyPlane, psnr, ssim } from './likeness';

const folder = mkdtempSync(path.join(tmpdir(), 'likeness-'));

/** A picture of soft shapes, and what becomes of it: noise, blur, another light, blocks, or nothing. */
function pair(n: number): [GreyPlane, GreyPlane] {
  const next = seeded(n);
  const [width, height] = [64 + 4 * (n % 5) + (n % 3), 48 + 2 * n + (n % 2)];
  const at = (x: number, y: number) =>
    110 +
    60 * Math.sin((x + n) / (3 + (n % 7))) * Math.cos(y / (4 + (n % 5))) +
    30 * Number((x >> 3) % 2 === 0);
  const plane = (value: (x: number, y: number) => number): GreyPlane => ({
    ...{ width, height },
    data: Uint8Array.from({ length: width * height }, (_, i) =>
      Math.max(0, Math.min(255, Math.round(value(i % width, Math.floor(i / width))))),
    ),
  });
  const spoilt = [
    (x: number, y: number) => at(x, y) + (next() - 0.5) * 8 * (n + 1),
    (x: number, y: number) => (at(x - 1, y) + at(x, y) + at(x + 1, y) + at(x, y - 1) + at(x, y + 1)) / 5,
    (x: number, y: number) => 0.8 * at(x, y) + n,
    (x: number, y: number) => at(x & ~7, y & ~7),
    (x: number, y: number) => at(x, y) + (x === 5 ? 1 : 0),
  ][n % 5]!;
  return [plane(at), plane(spoilt)];
}

/** ffmpeg's filter `ssim` as it is written in C: the one for x86 is off by up to 0.003 where light differs (5.1). */
const PLAIN = ['-cpuflags', '0'];

/** Runs a filter of ffmpeg on two planes' luma. */
function byFfmpeg(filter: 'ssim' | 'psnr', planes: readonly GreyPlane[]): number {
  const inputs = planes.flatMap(({ data, width, height }, i) => {
    const file = path.join(folder, `${i}.gray`);
    writeFileSync(file, data);
    return ['-f', 'rawvideo', '-pix_fmt', 'gray', '-s', `${width}x${height}`, '-i', file];
  });
  const { stderr } = spawnSync('ffmpeg', [...PLAIN, ...inputs, '-lavfi', filter, '-f', 'null', '-']);
  const found = filter === 'ssim' ? / Y:([\d.]+)/ : / y:([\d.]+|inf)/;
  return Number(found.exec(stderr.toString())?.[1]?.replace('inf', 'Infinity'));
}

describe('likeness', () => {
  const pairs = Array.from({ length: 20 }, (_, n) => pair(n));

  it('by SSIM is what ffmpeg says, within 0.001, on twenty pairs', () => {
    const found = pairs.map(([a, b]) => ssim(a, b));
    expect(new Set(found.map((value) => value.toFixed(2))).size).toBeGreaterThan(8);
    pairs.forEach((both, n) =>
      expect(Math.abs(found[n]! - byFfmpeg('ssim', both))).toBeLessThanOrEqual(0.001),
    );
  });

  it('by PSNR is what ffmpeg says, within 0.01 dB', () => {
    for (const both of pairs.slice(0, 6)) {
      const [own, theirs] = [psnr(...both), byFfmpeg('psnr', both)];
      expect(Math.abs(own - theirs)).toBeLessThanOrEqual(0.01);
    }
    expect(psnr(pairs[0]![0], pairs[0]![0])).toBe(Infinity);
    expect(ssim(pairs[0]![0], pairs[0]![0])).toBe(1);
  });

  it('is none of planes that do not match', () => {
    const small = { data: new Uint8Array(49), width: 7, height: 7 };
    expect(() => ssim(small, small)).toThrow(RangeError);
    expect(() => ssim(pairs[0]![0], pairs[1]![0])).toThrow(RangeError);
  });
});
