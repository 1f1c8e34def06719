import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { trials } from '../../tests/soak';
import { scaleBlurred } from './backdrop';
import { Kernel } from './kernel';
import { isPixelLayout, type PixelLayout, type PlanarPicture, type SampleWindow } from './planes';
import { readPlane } from './test-pictures';
import { scaleTilted } from './tilt';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

const LAYOUTS = 'I420 NV12 I422 I444 I420P10 I422P10 I444P10 I420P12 I422P12 I444P12'.split(' ');
const [WIDTH, HEIGHT] = [61, 48];
/** Rounding errors of an edge, in samples. */
const NEAR = 1e-6;

/** Fills a picture with noise, another one outside its live part: in every sample that is not wholly inside. */
function fill(picture: PlanarPicture, live: SampleWindow, seed: number): PlanarPicture {
  const deep = picture.bits > 8;
  const top = 2 ** picture.bits - 1;
  picture.planes.forEach((plane, index) => {
    const pairs = picture.layout === 'NV12' && index === 1 ? 2 : 1;
    const bytes = kernel.bytes(plane.offset, plane.stride * plane.height);
    const samples = deep ? new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2) : bytes;
    const [subX, subY] = [plane.width < WIDTH ? 2 : 1, plane.height < HEIGHT ? 2 : 1];
    for (let y = 0; y < plane.height; y++) {
      for (let x = 0; x < plane.width; x++) {
        const right = Math.min(WIDTH, (x + 1) * subX);
        const bottom = Math.min(HEIGHT, (y + 1) * subY);
        const inside =
          x * subX >= live.x - NEAR &&
          y * subY >= live.y - NEAR &&
          right <= live.x + live.width + NEAR &&
          bottom <= live.y + live.height + NEAR;
        for (let n = 0; n < pairs; n++) {
          const noise = Math.sin((x * 7.13 + y * 3.71 + n + index) * (inside ? 1.7 : seed)) * 0.5 + 0.5;
          samples[(y * plane.width + x) * pairs + n] = Math.round(noise * top);
        }
      }
    }
  });
  return { ...picture, live };
}

type Draw = (source: PlanarPicture, target: PlanarPicture, whole: SampleWindow) => void;

/** Both chromas and luma of what is drawn. */
function drawn(layout: PixelLayout, live: SampleWindow, seed: number, draw: Draw): Uint8Array[] {
  const source = fill(kernel.source(layout, WIDTH, HEIGHT), live, seed);
  const target = kernel.target(40, 36);
  draw(source, target, { x: 0, y: 0, width: 40, height: 36 });
  return [0, 1, 2].map((index) => readPlane(kernel, target, index).data);
}

/** A live part at odd, even and broken edges, at least six samples across and down. */
const live = fc
  .tuple(
    fc.integer({ min: 0, max: 40 }),
    fc.integer({ min: 0, max: 40 }),
    fc.nat(100),
    fc.nat(100),
    fc.boolean(),
  )
  .map(([left, top, right, bottom, broken]) => {
    const by = broken ? 0.37 : 0;
    const [x, y] = [left + by, Math.min(top, HEIGHT - 8) + by];
    return {
      x,
      y,
      width: Math.min(WIDTH - x, 6 + (right / 100) * WIDTH),
      height: Math.min(HEIGHT - y, 6 + (bottom / 100) * HEIGHT),
    };
  });

describe('nothing outside the live part reaches a sample', () => {
  const same = (draw: (within: SampleWindow) => Draw, numRuns = trials(20, 60)) => {
    fc.assert(
      fc.property(fc.constantFrom(...LAYOUTS.filter(isPixelLayout)), live, (layout, area) => {
        expect(drawn(layout, area, 2.9, draw(area))).toEqual(drawn(layout, area, 4.3, draw(area)));
      }),
      { numRuns },
    );
  };

  it('of a window that is the whole live part', () => {
    same((area) => (source, target, whole) => kernel.scale(source, area, target, whole));
  });

  it('of one that is enlarged from a corner', () => {
    same((area) => (source, target, whole) => {
      kernel.scale(source, { ...area, width: area.width / 3, height: area.height / 3 }, target, whole);
    });
  });

  it.each([3, 41, 90, -12, 180])('of one that is turned by %i°', (angle) => {
    same((area) => (source, target, whole) => {
      scaleTilted(kernel, source, { ...area, angle, sampleAspect: 1 }, target, whole, 'test');
    });
  });

  it('of a blurred one', () => {
    same((area) => (source, target, whole) => scaleBlurred(kernel, source, area, target, whole, 9));
  });

  it.each([
    [1, false],
    [2, false],
    [3, true],
    [0, true],
  ] as const)('of a master that is turned by %i quarters, mirrored: %s', (quarters, mirrored) => {
    same(() => (source, target, whole) => {
      const turned = kernel.turned(source, quarters, mirrored);
      kernel.scale(turned, turned.live as SampleWindow, target, whole);
    });
  });

  it('of a master whose fields are drawn anew, then turned', () => {
    same(() => (source, target, whole) => {
      const fields = kernel.deinterlaced(source, false);
      const turned = kernel.turned(fields, 1);
      kernel.scale(turned, turned.live as SampleWindow, target, whole);
    });
  });

  it('and a flat picture beside black stays flat to its edge', () => {
    const source = kernel.source('I420', 192, 108);
    kernel.bytes(source.address, source.size).fill(16);
    const [luma] = source.planes;
    for (let y = 14; y < 94; y++) kernel.bytes(luma!.offset + y * 192, 192).fill(200);
    const target = kernel.target(90, 160);
    const area = { x: 73.5, y: 14, width: 45, height: 80 };
    const part = { ...source, live: { x: 0, y: 14, width: 192, height: 80 } };
    kernel.scale(part, area, target, { x: 0, y: 0, width: 90, height: 160 });
    expect(new Set(readPlane(kernel, target, 0).data)).toEqual(new Set([200]));
  });
});
