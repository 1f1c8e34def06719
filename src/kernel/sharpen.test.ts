import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { Kernel } from './kernel';
import { blurWeights, type Mask, sharpen } from './sharpen';
import { naturalPlane, type Plane, readPlane } from './test-pictures';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

/** A plane in the middle of a picture of one grey, sharpened where it lies. */
function sharpened(plane: Plane, mask: Mask): { inside: Uint8Array; outside: number } {
  const picture = kernel.picture('sharp', 'I420', plane.width + 16, plane.height + 8, 16);
  kernel.bytes(picture.address, picture.size).fill(77);
  const { offset, stride } = picture.planes[0]!;
  const rowAt = (y: number) => kernel.bytes(offset + (y + 4) * stride + 6, plane.width);
  for (let y = 0; y < plane.height; y++)
    rowAt(y).set(plane.data.subarray(y * plane.width, (y + 1) * plane.width));
  sharpen(kernel, picture, { x: 6, y: 4, width: plane.width, height: plane.height }, mask);
  const inside = new Uint8Array(plane.data.length);
  for (let y = 0; y < plane.height; y++) inside.set(rowAt(y), y * plane.width);
  const all = readPlane(kernel, picture, 0).data.reduce((sum, value) => sum + value, 0);
  return { inside, outside: all - inside.reduce((sum, value) => sum + value, 0) };
}

/** The same written plainly, in floating point. */
function plainly({ data, width, height }: Plane, { radius, amount, threshold }: Mask): number[] {
  const reach = Math.max(1, Math.ceil(3 * radius));
  const bell = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * radius ** 2)),
  );
  const sum = bell.reduce((total, weight) => total + weight, 0);
  const at = (x: number, y: number) =>
    data[Math.max(0, Math.min(height - 1, y)) * width + Math.max(0, Math.min(width - 1, x))] as number;
  return Array.from(data, (value, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    let blur = 0;
    bell.forEach((down, j) =>
      bell.forEach((across, k) => {
        blur += (down / sum) * (across / sum) * at(x + k - reach, y + j - reach);
      }),
    );
    const off = value - blur;
    return Math.abs(off) > threshold ? Math.max(1, Math.min(254, value + amount * off)) : value;
  });
}

describe('sharpening', () => {
  it('is an unsharp mask, to a code, and touches nothing around its rectangle', () => {
    const sizes = fc.record({
      width: fc.integer({ min: 1, max: 40 }),
      height: fc.integer({ min: 1, max: 30 }),
    });
    const masks = fc.record({
      radius: fc.double({ min: 0.3, max: 4, noNaN: true }),
      amount: fc.double({ min: 0, max: 2, noNaN: true }),
    });
    fc.assert(
      fc.property(sizes, masks, fc.integer({ min: 1, max: 9 }), ({ width, height }, mask, seed) => {
        const plane = naturalPlane(width, height, seed);
        const whole = { ...mask, threshold: 0 };
        const { inside, outside } = sharpened(plane, whole);
        plainly(plane, whole).forEach((wanted, i) => {
          expect(Math.abs(wanted - (inside[i] as number))).toBeLessThanOrEqual(1.5);
        });
        const around = readPlane(kernel, kernel.picture('sharp', 'I420', width + 16, height + 8, 16), 0);
        expect(outside).toBe(77 * (around.data.length - inside.length));
      }),
      { numRuns: 40 },
    );
  });

  it('leaves alone what is under its threshold, and all of a picture of one tone', () => {
    const plane = naturalPlane(64, 48);
    const { inside } = sharpened(plane, { radius: 1, amount: 1, threshold: 32 });
    expect([...inside]).toEqual([...plane.data]);
    const flat = { ...plane, data: plane.data.map(() => 140) };
    expect(new Set(sharpened(flat, { radius: 2, amount: 2, threshold: 0 }).inside)).toEqual(new Set([140]));
  });

  it('has weights that sum to one', () => {
    for (const radius of [0.3, 0.8, 1, 2.5, 4]) {
      expect(blurWeights(radius).reduce((sum, weight) => sum + weight, 0)).toBe(32768);
    }
  });
});
