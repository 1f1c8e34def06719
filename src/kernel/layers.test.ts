import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { blurredSize, scaleBlurred, smoothBackdrop } from './backdrop';
import { hexToLimitedBt709 } from './colour';
import { Kernel } from './kernel';
import { cornerCover, layOver } from './lay-over';
import { lumaSource, naturalPlane, readPlane, computePsnr } from './test-pictures';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

/** A picture of one grey. */
function flat(name: string, width: number, height: number, grey: number) {
  const picture = kernel.picture(name, 'I420', width, height, 16);
  kernel.bytes(picture.address, picture.size).fill(grey);
  return picture;
}

describe('a pane laid over another', () => {
  const rect = { x: 20, y: 10, width: 40, height: 60 };

  it('covers its rectangle and nothing else', () => {
    const under = flat('under', 96, 96, 50);
    layOver(kernel, flat('over', 40, 60, 200), under, rect, 0);
    const { data } = readPlane(kernel, under, 0);
    const sum = data.reduce((total, value) => total + value, 0);
    expect(sum).toBe(50 * 96 * 96 + 150 * 40 * 60);
    expect([data[10 * 96 + 19], data[10 * 96 + 20], data[69 * 96 + 59], data[69 * 96 + 60]]).toEqual([
      50, 200, 200, 50,
    ]);
  });

  it('has round corners of the area that a circle has', () => {
    const under = flat('under', 96, 96, 0);
    const radius = 16;
    layOver(kernel, flat('over', 40, 60, 200), under, rect, radius);
    const { data } = readPlane(kernel, under, 0);
    const area = data.reduce((total, value) => total + value, 0) / 200;
    expect(Math.abs(area - (40 * 60 - (4 - Math.PI) * radius ** 2))).toBeLessThan(4);
    expect(data[10 * 96 + 20]).toBe(0);
    expect(data[40 * 96 + 40]).toBe(200);
    expect(cornerCover(0.5, 0.5, 1)).toBeGreaterThan(0.2);
  });
});

describe('a soft backdrop', () => {
  it('holds small pictures of the blur that is asked for', () => {
    expect(blurredSize(1080, 1920, 64)).toEqual({ width: 68, height: 120 });
    expect(blurredSize(1080, 1920, 1)).toEqual({ width: 1080, height: 1920 });
  });

  it('keeps the mean, and takes the detail away as a general-purpose blur does (sharp)', async () => {
    const plane = naturalPlane(320, 240);
    const target = kernel.target(320, 240);
    const whole = { x: 0, y: 0, width: 320, height: 240 };
    scaleBlurred(kernel, lumaSource(kernel, plane), whole, target, whole, 24);
    const soft = readPlane(kernel, target, 0);
    const mean = (data: Uint8Array) => data.reduce((sum, value) => sum + value, 0) / data.length;
    expect(Math.abs(mean(soft.data) - mean(plane.data))).toBeLessThan(1);
    const raw = { raw: { width: 320, height: 240, channels: 1 as const } };
    const found: number[] = [];
    for (const sigma of [2, 5, 8, 11, 14]) {
      const data = await sharp(plane.data, raw).blur(sigma).extractChannel(0).raw().toBuffer();
      found.push(computePsnr(soft, { data: new Uint8Array(data), width: 320, height: 240 }, 40));
    }
    // It is the like of one of those blurs, and of none that leaves the detail.
    expect(Math.max(...found)).toBeGreaterThan(30);
    expect(found.indexOf(Math.max(...found))).toBeGreaterThan(0);
  });

  it('smooths a single sample into the binomial of two passes', () => {
    const data = new Uint8Array(9 * 9);
    data[4 * 9 + 4] = 255;
    smoothBackdrop(data, { width: 9, height: 9, stride: 9, step: 1 });
    // 1-2-1 twice is 1-4-6-4-1 over 16: the middle keeps (6/16)² of it.
    expect(Math.abs((data[4 * 9 + 4] as number) - 255 * (6 / 16) ** 2)).toBeLessThan(3);
    expect(data[0]).toBe(0);
  });
});

describe('the colour of a band', () => {
  // ITU-R BT.709-6: white and black of limited range are 235 and 16; the primaries by items 3.2 to 3.4.
  it.each([
    ['#FFFFFF', [235, 128, 128]],
    ['#000000', [16, 128, 128]],
    ['#FF0000', [63, 102, 240]],
    ['#00FF00', [173, 42, 26]],
    ['#0000FF', [32, 240, 118]],
  ])('%s is %p', (colour, samples) => {
    expect(hexToLimitedBt709(colour)).toEqual(samples);
  });
});
