import { readFileSync } from 'node:fs';
import { random } from '../../tests/random';
import { fromYcc, toLimitedBt709 } from './colour';
import { Kernel } from './kernel';
import { OverlayBlender, createOverlay } from './overlay';
import type { PlanarPicture } from './planes';
import { readPlane } from './test-pictures';

const kernels: [string, Promise<Kernel>][] = ['kernel', 'kernel-relaxed'].flatMap((name) => {
  const wasm = readFileSync(`src/kernel/${name}.wasm`);
  return WebAssembly.validate(wasm) ? [[name, Kernel.load(wasm)]] : [];
});

/** A picture whose every plane is of one value. */
function flat(kernel: Kernel, width: number, height: number, values: readonly number[]): PlanarPicture {
  const picture = kernel.target(width, height);
  picture.planes.forEach(({ offset, stride, height: rows }, i) =>
    kernel.bytes(offset, stride * rows).fill(values[i] as number),
  );
  return picture;
}

/** Pixels of red, green, blue and alpha from a function of their place. */
function pixels(width: number, height: number, of: (x: number, y: number) => number[]): Uint8ClampedArray {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data.set(of(x, y), 4 * (y * width + x));
  return data;
}

/**
 * The reference: colours are mixed pixel by pixel in floating point as red, green and blue, turned into luma and chroma
 * by the equations of ITU-R BT.709-6, and chroma is then taken at its place: 1-2-1 across, the mean of two rows down.
 */
function reference(
  background: readonly [number, number, number],
  drawing: Uint8ClampedArray,
  width: number,
  height: number,
  presence: number,
) {
  const codes = Array.from({ length: width * height }, (_, i) => {
    const cover = ((drawing[4 * i + 3] as number) / 255) * presence;
    const mixed = background.map(
      (under, c) => under + ((drawing[4 * i + c] as number) / 255 - under) * cover,
    );
    return toLimitedBt709(mixed as [number, number, number]);
  });
  const at = (part: number, x: number, y: number) =>
    codes[y * width + Math.min(width - 1, Math.max(0, x))]![part] as number;
  const chroma = (part: number) =>
    Array.from({ length: (width * height) / 4 }, (_, i) => {
      const [x, y] = [2 * (i % (width / 2)), 2 * Math.floor(i / (width / 2))];
      const row = (y: number) => (at(part, x - 1, y) + 2 * at(part, x, y) + at(part, x + 1, y)) / 4;
      return (row(y) + row(y + 1)) / 2;
    });
  return [codes.map((code) => code[0]), chroma(1), chroma(2)];
}

describe.each(kernels)('an overlay in %s', (_, loading) => {
  let kernel: Kernel;
  beforeAll(async () => {
    kernel = await loading;
  });
  // A colour whose codes are whole, so that the background itself is not rounded.
  const codesOfBack = [120, 140, 110] as const;
  const BACK = fromYcc({ matrix: 'bt709', primaries: 'bt709', transfer: 'bt709', fullRange: false }, [
    ...codesOfBack,
  ]);

  it.each([1, 0.5, 0.25])('is what a reference compositor makes of it, %f there', (presence) => {
    const [width, height] = [52, 30];
    const next = random(7);
    const drawing = pixels(width, height, (x, y) => {
      const inside = x > 3 && x < 48 && y > 3 && y < 26;
      const soft = Math.min(1, Math.hypot(x - 26, y - 15) / 14);
      return inside ? [250 * soft, 40 + 8 * y, 255 - 4 * x, Math.round(255 * next() ** 0.5)] : [0, 0, 0, 0];
    });
    const target = flat(kernel, width, height, codesOfBack);
    const rect = { x: 0, y: 0, width, height };
    new OverlayBlender(kernel).blend(createOverlay(drawing, rect), target, presence, 0);
    const wanted = reference(BACK, drawing, width, height, presence);
    // One rounding of each sample and of its share; two more where only a part of it is there.
    const most = presence === 1 ? 1.5 : 2;
    wanted.forEach((plane, i) => {
      const { data } = readPlane(kernel, target, i);
      plane.forEach((value, at) => expect(Math.abs((data[at] as number) - value)).toBeLessThanOrEqual(most));
      const mean = plane.reduce((sum, value, at) => sum + (data[at] as number) - value, 0) / plane.length;
      expect(Math.abs(mean)).toBeLessThan(0.4);
    });
  });

  it('touches nothing outside its box, and nothing where it is empty', () => {
    const target = flat(kernel, 64, 48, [100, 110, 120]);
    const rect = { x: 10, y: 6, width: 22, height: 12 };
    const full = pixels(22, 12, () => [255, 255, 255, 255]);
    new OverlayBlender(kernel).blend(createOverlay(full, rect), target, 1, 0);
    const { data } = readPlane(kernel, target, 0);
    for (let y = 0; y < 48; y++) {
      for (let x = 0; x < 64; x++) {
        const inside = x >= 10 && x < 32 && y >= 6 && y < 18;
        expect(data[y * 64 + x]).toBe(inside ? 235 : 100);
      }
    }
    const empty = flat(kernel, 64, 48, [100, 110, 120]);
    new OverlayBlender(kernel).blend(
      createOverlay(
        pixels(22, 12, () => [9, 9, 9, 0]),
        rect,
      ),
      empty,
      1,
      0,
    );
    expect(new Set(readPlane(kernel, empty, 0).data)).toEqual(new Set([100]));
  });

  it('puts an edge of colour where the edge of its pixels is: chroma lies on even columns', () => {
    const target = flat(kernel, 32, 8, [16, 128, 128]);
    // Red from column 16 on: the chroma sample there stands for 15, 16 and 17 as 1-2-1.
    const half = pixels(32, 8, (x) => [255, 0, 0, x >= 16 ? 255 : 0]);
    new OverlayBlender(kernel).blend(createOverlay(half, { x: 0, y: 0, width: 32, height: 8 }), target, 1, 0);
    const { data } = readPlane(kernel, target, 2);
    const red = toLimitedBt709([1, 0, 0])[2] - 128;
    expect(data[7]).toBe(128);
    expect(Math.abs((data[8] as number) - 128 - 0.75 * red)).toBeLessThanOrEqual(1);
    expect(Math.abs((data[9] as number) - 128 - red)).toBeLessThanOrEqual(1);
  });

  it('keeps two that are there together apart, and takes a new drawing in the place of an old one', () => {
    const target = flat(kernel, 32, 16, [16, 128, 128]);
    const blender = new OverlayBlender(kernel);
    const white = createOverlay(
      pixels(8, 8, () => [255, 255, 255, 255]),
      { x: 0, y: 0, width: 8, height: 8 },
    );
    const grey = createOverlay(
      pixels(8, 8, () => [128, 128, 128, 255]),
      { x: 16, y: 0, width: 8, height: 8 },
    );
    blender.blend(white, target, 1, 0);
    blender.blend(grey, target, 1, 1);
    blender.blend(white, target, 1, 0);
    const first = readPlane(kernel, target, 0).data;
    expect([first[0], first[8], first[16]]).toEqual([235, 16, 126]);
    blender.blend(grey, target, 1, 0);
    expect(readPlane(kernel, target, 0).data[20]).toBe(126);
  });

  it('wants even edges', () => {
    const rect = { x: 1, y: 0, width: 8, height: 8 };
    expect(() =>
      createOverlay(
        pixels(8, 8, () => [0, 0, 0, 0]),
        rect,
      ),
    ).toThrow(RangeError);
  });
});
