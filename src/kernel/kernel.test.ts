import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { setFlagsFromString } from 'node:v8';
import { lanczos as outsideLanczos } from '@rgba-image/lanczos';
import fc from 'fast-check';
import sharp from 'sharp';
import { Kernel } from './kernel';
import type { SampleWindow } from './planes';
import { axisFilter, TAP_ONE } from './lanczos';
import { plainScale } from './plain-reference';
import { lumaSource, naturalPlane, type Plane, readPlane, computePsnr, ringsPlane } from './test-pictures';

/** PSNR from which two resamplings count as the same, in decibels. */
const SAME = 45;
/** Samples at each side left out: other programs treat edges in other ways. */
const EDGE = 12;

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

/** The luma of a window of a plane, scaled by the kernel. */
function scaled(plane: Plane, window: SampleWindow, width: number, height: number): Plane {
  const target = kernel.target(width, height);
  kernel.scale(lumaSource(kernel, plane), window, target, { x: 0, y: 0, width, height });
  return readPlane(kernel, target, 0);
}
const whole = (plane: Plane): SampleWindow => ({ x: 0, y: 0, width: plane.width, height: plane.height });

const PICTURES: [string, Plane][] = [
  ['natural', naturalPlane(320, 240)],
  ['synthetic', ringsPlane(320, 240)],
];
const ENLARGED = [
  [480, 360],
  [568, 426],
] as const;
const SHRUNK = [
  [240, 180],
  [128, 96],
] as const;

describe.each(PICTURES)('on a %s picture', (_, plane) => {
  it.each<[string, SampleWindow, number, number]>([
    ['a sub-pixel window enlarged', { x: 40.3, y: 20.7, width: 101.25, height: 180 }, 180, 320],
    ['a window past the edges', { x: -8.5, y: -3.25, width: 340, height: 250 }, 360, 264],
    ['a strong reduction', { x: 10.1, y: 0, width: 300, height: 240 }, 64, 52],
    ['a stronger one', { x: 0, y: 0, width: 320, height: 240 }, 40, 30],
  ])('agrees with the plain reference: %s', (_name, window, width, height) => {
    const axis = (start: number, length: number, count: number) => ({
      origin: start + (0.5 * length) / count - 0.5,
      step: length / count,
    });
    const plain = plainScale(
      plane,
      width,
      height,
      axis(window.x, window.width, width),
      axis(window.y, window.height, height),
    );
    const fast = scaled(plane, window, width, height);
    expect(computePsnr(fast, plain)).toBeGreaterThan(50);
    expect(
      Math.max(...fast.data.map((value, i) => Math.abs(value - (plain.data[i] as number)))),
    ).toBeLessThanOrEqual(2);
  });

  // Outside reference: @rgba-image/lanczos 0.1, Lanczos-3, both ways.
  it.each([...ENLARGED, ...SHRUNK])('agrees with @rgba-image/lanczos at %i×%i', (width, height) => {
    const rgba = new Uint8ClampedArray(plane.data.length * 4);
    plane.data.forEach((value, i) => rgba.set([value, value, value, 255], i * 4));
    const target = { width, height, data: new Uint8ClampedArray(width * height * 4) };
    const from = { width: plane.width, height: plane.height, data: rgba, colorSpace: 'srgb' } as ImageData;
    outsideLanczos(from, target as ImageData);
    const outside = {
      width,
      height,
      data: target.data.filter((_value, i) => i % 4 === 0) as unknown as Uint8Array,
    };
    expect(computePsnr(scaled(plane, whole(plane), width, height), outside, EDGE)).toBeGreaterThanOrEqual(
      SAME,
    );
  });

  // Outside reference: ffmpeg's swscale, flags lanczos+accurate_rnd.
  it.each(ENLARGED)('agrees with ffmpeg when enlarging to %i×%i', (width, height) => {
    const raw = ['-f', 'rawvideo', '-pix_fmt', 'gray'];
    const out = execFileSync(
      'ffmpeg',
      [
        '-v',
        'error',
        ...raw,
        '-s',
        `${plane.width}x${plane.height}`,
        '-i',
        '-',
        '-vf',
        `scale=${width}:${height}:flags=lanczos+accurate_rnd`,
        ...raw,
        '-',
      ],
      { input: plane.data },
    );
    expect(
      computePsnr(scaled(plane, whole(plane), width, height), { data: out, width, height }, EDGE),
    ).toBeGreaterThanOrEqual(SAME);
  });

  // Outside reference: sharp (libvips), kernel lanczos3.
  it.each(SHRUNK)('agrees with sharp when shrinking to %i×%i', async (width, height) => {
    const out = await sharp(plane.data, { raw: { width: plane.width, height: plane.height, channels: 1 } })
      .resize(width, height, { kernel: 'lanczos3', fit: 'fill', fastShrinkOnLoad: false })
      .toColourspace('b-w')
      .raw()
      .toBuffer();
    expect(
      computePsnr(scaled(plane, whole(plane), width, height), { data: out, width, height }, EDGE),
    ).toBeGreaterThanOrEqual(SAME);
  });

  it('moves by whole pixels exactly', () => {
    const part = scaled(plane, { x: 7, y: 5, width: 200, height: 160 }, 200, 160);
    for (let y = 0; y < 160; y++) {
      for (let x = 0; x < 200; x++) {
        expect(part.data[y * 200 + x]).toBe(plane.data[(y + 5) * plane.width + x + 7]);
      }
    }
  });
});

describe('the kernel', () => {
  it('keeps a constant picture constant to the bit, at any window', () => {
    fc.assert(
      fc.property(
        fc.nat(255),
        fc.double({ min: -20, max: 60, noNaN: true }),
        fc.double({ min: 5, max: 200, noNaN: true }),
        fc.constantFrom([46, 30], [130, 210], [16, 300]),
        (value, start, length, [width, height]) => {
          const plane = { width: 90, height: 70, data: new Uint8Array(90 * 70).fill(value) };
          const out = scaled(
            plane,
            { x: start, y: start / 2, width: length, height: length },
            width as number,
            height as number,
          );
          expect(out.data.every((sample) => sample === value)).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('draws the same samples with relaxed SIMD', async () => {
    // This Node.js has it behind a flag.
    setFlagsFromString('--experimental-wasm-relaxed-simd');
    const plane = naturalPlane(320, 240);
    const plain = kernel;
    const sizes = [
      [568, 426],
      [128, 96],
      [40, 30],
    ] as const;
    const drawn = () => sizes.map(([width, height]) => scaled(plane, whole(plane), width, height));
    const expected = drawn();
    kernel = await Kernel.load(readFileSync('src/kernel/kernel-relaxed.wasm'));
    const relaxed = drawn();
    kernel = plain;
    expect(relaxed).toEqual(expected);
  });

  it('has weights that sum to one in fixed point', () => {
    const { taps, weights, starts } = axisFilter(300, -0.13, 0.7319);
    for (let k = 0; k < starts.length; k++) {
      expect(weights.subarray(k * taps, (k + 1) * taps).reduce((sum, weight) => sum + weight, 0)).toBe(
        TAP_ONE,
      );
    }
    expect(() => axisFilter(0, 0, 1)).toThrow(RangeError);
    expect(() => axisFilter(4, 0, 0)).toThrow(RangeError);
  });

  // Chroma of 4:2:0 lies left across and centred down (ITU-T H.264 Annex E, chroma_sample_loc_type 0): a ramp that
  // luma and chroma share must still be shared after any window.
  it('respects the siting of chroma', () => {
    const [width, height] = [160, 120];
    const source = kernel.source('I420', width, height);
    const ramp = (x: number, y: number) => 30 + x * 0.8 + y * 0.5;
    source.planes.forEach((plane, index) => {
      const bytes = kernel.bytes(plane.offset, plane.stride * plane.height);
      for (let y = 0; y < plane.height; y++) {
        for (let x = 0; x < plane.width; x++) {
          bytes[y * plane.stride + x] = Math.round(index === 0 ? ramp(x, y) : ramp(2 * x, 2 * y + 0.5));
        }
      }
    });
    const target = kernel.target(100, 140);
    kernel.scale(source, { x: 33.3, y: 17.1, width: 57.7, height: 80.4 }, target, {
      x: 0,
      y: 0,
      width: 100,
      height: 140,
    });
    const [luma, cb] = [readPlane(kernel, target, 0), readPlane(kernel, target, 1)];
    for (let y = 4; y < 66; y++) {
      for (let x = 4; x < 46; x++) {
        // Left across: with luma 2x; centred down: between luma 2y and 2y + 1.
        const beside =
          ((luma.data[2 * y * 100 + 2 * x] as number) + (luma.data[(2 * y + 1) * 100 + 2 * x] as number)) / 2;
        expect(Math.abs((cb.data[y * 50 + x] as number) - beside)).toBeLessThanOrEqual(1.5);
      }
    }
  });

  it('reads NV12 and 10 bits as it reads I420', () => {
    const luma = naturalPlane(96, 64);
    const cb = naturalPlane(48, 32, 2);
    const cr = naturalPlane(48, 32, 3);
    const window = { x: 10.4, y: 3.2, width: 60, height: 50 };
    const result = (fill: () => ReturnType<Kernel['source']>) => {
      const target = kernel.target(120, 100);
      kernel.scale(fill(), window, target, { x: 0, y: 0, width: 120, height: 100 });
      return [0, 1, 2].map((index) => readPlane(kernel, target, index).data);
    };
    const i420 = result(() => {
      const source = kernel.source('I420', 96, 64);
      kernel.bytes(source.address, source.size).set([...luma.data, ...cb.data, ...cr.data]);
      return source;
    });
    const nv12 = result(() => {
      const source = kernel.source('NV12', 96, 64);
      const pairs = [...cb.data].flatMap((value, i) => [value, cr.data[i] as number]);
      kernel.bytes(source.address, source.size).set([...luma.data, ...pairs]);
      return source;
    });
    const ten = result(() => {
      const source = kernel.source('I420P10', 96, 64);
      const samples = Uint16Array.from([...luma.data, ...cb.data, ...cr.data], (value) => value * 4);
      kernel.bytes(source.address, source.size).set(new Uint8Array(samples.buffer));
      return source;
    });
    expect(nv12).toEqual(i420);
    expect(ten).toEqual(i420);
  });

  it.each([1, 2, 3] as const)('turns a picture by %i quarters', (quarters) => {
    const plane = naturalPlane(34, 22);
    const turned = readPlane(kernel, kernel.turned(lumaSource(kernel, plane), quarters), 0);
    for (let y = 0; y < 22; y++) {
      for (let x = 0; x < 34; x++) {
        const expected = { 1: [21 - y, x], 2: [33 - x, 21 - y], 3: [y, 33 - x] }[quarters] as [
          number,
          number,
        ];
        expect(turned.data[expected[1] * turned.width + expected[0]]).toBe(plane.data[y * 34 + x]);
      }
    }
  });

  it('paints bars black beside a fitted picture and nowhere else', () => {
    const plane = { width: 64, height: 36, data: new Uint8Array(64 * 36).fill(200) };
    const target = kernel.target(60, 100);
    const rect = { x: 4, y: 34, width: 50, height: 32 };
    kernel.scale(lumaSource(kernel, plane, 90), whole(plane), target, rect);
    kernel.fillBars(target, [rect]);
    const [luma, cb] = [readPlane(kernel, target, 0), readPlane(kernel, target, 1)];
    luma.data.forEach((value, i) => {
      const [x, y] = [i % 60, Math.floor(i / 60)];
      expect(value).toBe(x >= 4 && x < 54 && y >= 34 && y < 66 ? 200 : 16);
    });
    cb.data.forEach((value, i) => {
      const [x, y] = [i % 30, Math.floor(i / 30)];
      expect(value).toBe(x >= 2 && x < 27 && y >= 17 && y < 33 ? 90 : 128);
    });
  });

  it('refuses odd sizes and empty windows', () => {
    expect(() => kernel.target(101, 100)).toThrow(RangeError);
    expect(() => kernel.source('I420', 0, 10)).toThrow(RangeError);
    const target = kernel.target(20, 20);
    const source = kernel.source('I420', 20, 20);
    expect(() =>
      kernel.scale(
        source,
        { x: 0, y: 0, width: 0, height: 5 },
        target,
        whole({ ...target, data: new Uint8Array() }),
      ),
    ).toThrow(RangeError);
    expect(() =>
      kernel.scale(source, { x: 0, y: 0, width: 5, height: 5 }, target, { x: 1, y: 0, width: 4, height: 4 }),
    ).toThrow(RangeError);
  });
});
