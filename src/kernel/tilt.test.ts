import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import sharp from 'sharp';
import { Kernel } from './kernel';
import { lumaSource, naturalPlane, type Plane, readPlane, computePsnr } from './test-pictures';
import { cubicTaps, scaleTilted, type TiltedWindow } from './tilt';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

/** Smooth waves that can be told at any place, so that a turned picture has a truth. */
const waves = (x: number, y: number): number => 126 + 60 * Math.sin(x / 9) + 40 * Math.cos(y / 7 + x / 23);
function wavesPlane(width: number, height: number): Plane {
  const data = new Uint8Array(width * height);
  // Sample i spans i…i + 1.
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data[y * width + x] = Math.round(waves(x + 0.5, y + 0.5));
  return { data, width, height };
}

function tilted(plane: Plane, window: TiltedWindow, width: number, height: number): Plane {
  const target = kernel.target(width, height);
  scaleTilted(kernel, lumaSource(kernel, plane), window, target, { x: 0, y: 0, width, height }, 'test');
  return readPlane(kernel, target, 0);
}

/** Computes what a turned window shows of the waves. */
function truth(window: TiltedWindow, width: number, height: number): Plane {
  const data = new Uint8Array(width * height);
  const radians = (window.angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const step = window.height / height;
  const centre = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const [u, v] = [(i + 0.5 - width / 2) * step, (j + 0.5 - height / 2) * step];
      const x = centre.x + (u * cos - v * sin) / window.sampleAspect;
      data[j * width + i] = Math.round(waves(x, centre.y + u * sin + v * cos));
    }
  }
  return { data, width, height };
}

describe('a tilted window', () => {
  it.each<[string, TiltedWindow, number, number]>([
    ['a little', { x: 100, y: 40, width: 90, height: 160, angle: 3, sampleAspect: 1 }, 180, 320],
    [
      'a lot, to the left',
      { x: 110, y: 60, width: 80, height: 120, angle: -41.3, sampleAspect: 1 },
      120,
      180,
    ],
    ['reduced', { x: 60, y: 20, width: 200, height: 200, angle: 12, sampleAspect: 1 }, 100, 100],
    [
      'on pixels that are not square',
      { x: 110, y: 60, width: 90, height: 120, angle: 20, sampleAspect: 4 / 3 },
      120,
      120,
    ],
    ['past a quarter turn', { x: 90, y: 80, width: 120, height: 90, angle: 97, sampleAspect: 1 }, 160, 120],
  ])('shows the picture where it is: %s', (_, window, width, height) => {
    const found = tilted(wavesPlane(320, 240), window, width, height);
    expect(computePsnr(found, truth(window, width, height))).toBeGreaterThan(44);
  });

  it('of a quarter turn is the picture, sample for sample', () => {
    const plane = naturalPlane(64, 64);
    const window = { x: 0, y: 0, width: 64, height: 64, angle: 90, sampleAspect: 1 };
    const found = tilted(plane, window, 64, 64);
    // A window turned clockwise shows the picture turned the other way: its right edge comes to the top.
    for (const [x, y] of [
      [3, 5],
      [40, 11],
      [63, 0],
    ] as const) {
      expect(found.data[y * 64 + x]).toBe(plane.data[x * 64 + (63 - y)]);
    }
  });

  it("agrees with a general-purpose library's bicubic rotation (sharp's affine)", async () => {
    const size = 240;
    const plane = naturalPlane(size, size);
    const [cos, sin] = [Math.cos(Math.PI / 18), Math.sin(Math.PI / 18)];
    const raw = { raw: { width: size, height: size, channels: 1 as const } };
    const { data, info } = await sharp(plane.data, raw)
      .affine([cos, sin, -sin, cos], { interpolator: 'bicubic', background: '#000' })
      .raw()
      .toBuffer({ resolveWithObject: true });
    // The middle of the larger picture that it returns.
    const [left, top] = [Math.round((info.width - 120) / 2), Math.round((info.height - 120) / 2)];
    const theirs: Plane = { data: new Uint8Array(120 * 120), width: 120, height: 120 };
    const step = info.channels;
    for (let y = 0; y < 120; y++)
      for (let x = 0; x < 120; x++)
        theirs.data[y * 120 + x] = data[((top + y) * info.width + left + x) * step] as number;
    // Their middle may lie half a sample from ours: the best of the places around it counts.
    const places = [-0.5, 0, 0.5].flatMap((x) => [-0.5, 0, 0.5].map((y) => ({ x, y })));
    const best = Math.max(
      ...places.map(({ x, y }) => {
        const window = { x: 60 + x, y: 60 + y, width: 120, height: 120, angle: 10, sampleAspect: 1 };
        return computePsnr(tilted(plane, window, 120, 120), theirs);
      }),
    );
    expect(best).toBeGreaterThan(33);
  });
});

describe('the taps', () => {
  // Keys, 1981: for a = −1/2 the kernel is 1 at 0, 0 at whole distances, and passes straight lines unchanged.
  it('add up to one, and keep a straight line straight', () => {
    expect(cubicTaps(0)).toEqual([0, 1 << 14, 0, 0]);
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (phase) => {
        const taps = cubicTaps(phase);
        expect(taps.reduce((sum, tap) => sum + tap)).toBe(1 << 14);
        const line = taps.reduce((sum, tap, i) => sum + tap * (i - 1), 0) / (1 << 14);
        expect(line).toBeCloseTo(phase, 3);
      }),
    );
  });
});
