import { readFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { brightCounts, combShare, greyCopy, halvePicture, topFieldFirst } from './analysis';
import { Kernel } from './kernel';
import type { PlanarPicture, PlaneShape } from './planes';

let kernel: Kernel;
beforeAll(async () => {
  kernel = await Kernel.load(readFileSync('src/kernel/kernel.wasm'));
});

const chance = (n: number): number => {
  const x = Math.sin(n * 127.1 + 11.7) * 43758.5453;
  return x - Math.floor(x);
};

/** A picture in the kernel filled by a function of plane, column and row. */
function filled(
  width: number,
  height: number,
  value: (plane: number, x: number, y: number) => number,
): PlanarPicture {
  const picture = kernel.source('I420', width, height);
  picture.planes.forEach(({ offset, stride, width: w, height: h }, i) => {
    const bytes = kernel.bytes(offset, stride * h);
    for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) bytes[y * stride + x] = value(i, x, y);
  });
  return picture;
}
/** A plane's samples as rows, copied. */
function rowsOf({ offset, stride, width, height }: PlaneShape): number[][] {
  const bytes = kernel.bytes(offset, stride * height);
  return Array.from({ length: height }, (_, y) => [...bytes.subarray(y * stride, y * stride + width)]);
}

describe('making pictures small', () => {
  it('halves each plane to the rounded mean of four', () => {
    const noise = (i: number, x: number, y: number) => Math.floor(chance(i * 7919 + y * 131 + x) * 256);
    const picture = filled(72, 44, noise);
    const small = halvePicture(kernel, picture, 'test-half');
    expect([small.width, small.height]).toEqual([36, 22]);
    small.planes.forEach((plane, i) => {
      rowsOf(plane).forEach((row, y) =>
        row.forEach((value, x) => {
          const four =
            noise(i, 2 * x, 2 * y) +
            noise(i, 2 * x + 1, 2 * y) +
            noise(i, 2 * x, 2 * y + 1) +
            noise(i, 2 * x + 1, 2 * y + 1);
          expect(value).toBe((four + 2) >> 2);
        }),
      );
    });
  });

  it('keeps a grey copy of about the side that is asked for, as bright as the picture', () => {
    const picture = filled(960, 540, (i, x, y) => (i === 0 ? (x + y) % 200 : 128));
    const grey = greyCopy(kernel, picture, 160);
    expect([grey.width, grey.height]).toEqual([160, 90]);
    const mean = grey.data.reduce((sum, value) => sum + value, 0) / grey.data.length;
    expect(mean).toBeGreaterThan(97);
    expect(mean).toBeLessThan(102);
  });

  it('counts what is brighter than a level, at any width', () => {
    for (const width of [16, 50, 101]) {
      const noise = (x: number, y: number) => Math.floor(chance(y * 311 + x) * 60);
      const picture = filled(width, 20, (i, x, y) => (i === 0 ? noise(x, y) : 128));
      const { rows, columns } = brightCounts(kernel, picture, 20);
      for (let y = 0; y < 20; y++) {
        expect(rows[y]).toBe(
          Array.from({ length: width }, (_, x) => noise(x, y)).filter((v) => v > 20).length,
        );
      }
      for (let x = 0; x < width; x++) {
        expect(columns[x]).toBe(
          Array.from({ length: 20 }, (_, y) => noise(x, y)).filter((v) => v > 20).length,
        );
      }
    }
  });
});

/** A disc that moves over a soft ground; `time` in fields. */
const scene = (x: number, y: number, time: number): number => {
  const ground = 90 + 40 * Math.sin(x / 17) * Math.cos(y / 13);
  const inside = Math.hypot(x - 60 - time * 4, y - 50) < 30;
  return Math.round(inside ? 200 + 20 * Math.sin(x / 3) : ground);
};
const WIDTH = 256;
const HEIGHT = 112;
/** A frame of two fields, the first at an even time; whole frames when both are the same. */
const frameAt = (n: number, topFirst: boolean | null) => (i: number, x: number, y: number) => {
  if (i > 0) return 128;
  const second = topFirst === null ? 0 : (y % 2 === 1) === topFirst ? 1 : 0;
  return scene(x, y, 2 * n + second);
};

describe('fields', () => {
  it('comb where something moves between them, and nowhere else', () => {
    expect(combShare(kernel, filled(WIDTH, HEIGHT, frameAt(3, true)))).toBeGreaterThan(0.01);
    expect(combShare(kernel, filled(WIDTH, HEIGHT, frameAt(3, null)))).toBeLessThan(0.002);
  });

  it.each([true, false])('tell their order: top first is %s', (topFirst) => {
    const first = filled(WIDTH, HEIGHT, frameAt(3, topFirst));
    const luma = first.planes[0]!;
    const address = kernel.block('test-before', luma.stride * luma.height + 64);
    kernel
      .bytes(address, luma.stride * luma.height)
      .set(kernel.bytes(luma.offset, luma.stride * luma.height));
    const before = { ...first, planes: [{ ...luma, offset: address }] };
    const order = topFieldFirst(kernel, before, filled(WIDTH, HEIGHT, frameAt(4, topFirst)));
    expect(order > 1).toBe(topFirst);
  });

  const errorOf = (picture: PlanarPicture, n: number) => {
    let sum = 0;
    rowsOf(picture.planes[0]!).forEach((row, y) =>
      row.forEach((value, x) => (sum += (value - scene(x, y, 2 * n)) ** 2)),
    );
    return sum / (WIDTH * HEIGHT);
  };

  it('are drawn into whole frames of full height: nearer the true picture than doubled lines', () => {
    const bob = filled(WIDTH, HEIGHT, (i, x, y) => (i > 0 ? 128 : scene(x, y - (y % 2), 6)));
    const doubled = errorOf(bob, 3);
    const woven = errorOf(filled(WIDTH, HEIGHT, frameAt(3, true)), 3);
    kernel.deinterlaced(filled(WIDTH, HEIGHT, frameAt(2, true)), false);
    const drawn = kernel.deinterlaced(filled(WIDTH, HEIGHT, frameAt(3, true)), true);
    expect(drawn.height).toBe(HEIGHT);
    expect(errorOf(drawn, 3)).toBeLessThan(doubled);
    expect(errorOf(drawn, 3)).toBeLessThan(woven / 3);
    expect(combShare(kernel, drawn)).toBeLessThan(0.002);
  });

  it('of a still picture keep every line to the bit', () => {
    const lines = (i: number, _x: number, y: number) => (i > 0 ? 128 : y % 2 === 0 ? 60 : 190);
    kernel.deinterlaced(filled(WIDTH, HEIGHT, lines), false);
    const drawn = kernel.deinterlaced(filled(WIDTH, HEIGHT, lines), true);
    rowsOf(drawn.planes[0]!).forEach((row, y) =>
      expect(new Set(row)).toEqual(new Set([y % 2 === 0 ? 60 : 190])),
    );
  });

  // Judged from outside: ffmpeg interlaces a film, and its bwdif filter makes whole frames of it.
  it('of a real film come out about as well as a general-purpose filter makes them', () => {
    const [w, h, count] = [640, 360, 12];
    const raw = (filter: string) =>
      execFileSync(
        'ffmpeg',
        [
          '-v',
          'error',
          '-ss',
          '2',
          '-i',
          'public/demo/kite-day.mp4',
          '-vf',
          filter,
          '-frames:v',
          String(count),
          '-pix_fmt',
          'yuv420p',
          '-f',
          'rawvideo',
          '-',
        ],
        { maxBuffer: 1 << 28 },
      );
    const size = (w * h * 3) / 2;
    const moving = `scale=${w}:${h},crop=${w - 80}:${h}:'40+38*sin(n/3)':0,scale=${w}:${h}`;
    const truth = raw(`${moving},select='not(mod(n,2))',setpts=N/24/TB`);
    const fields = raw(`${moving},tinterlace=interleave_top`);
    const theirs = raw(`${moving},tinterlace=interleave_top,setfield=tff,bwdif=mode=send_frame:parity=tff`);
    const psnr = (mine: (n: number) => Uint8Array) => {
      let sum = 0;
      for (let n = 2; n < count - 1; n++) {
        const picture = mine(n);
        for (let i = 0; i < w * h; i++)
          sum += ((picture[i] as number) - (truth[n * size + i] as number)) ** 2;
      }
      return 10 * Math.log10((255 * 255 * (count - 3) * w * h) / sum);
    };
    const drawn: Uint8Array[] = [];
    for (let n = 0; n < count; n++) {
      const source = kernel.source('I420', w, h);
      kernel.bytes(source.address, size).set(fields.subarray(n * size, (n + 1) * size));
      const luma = kernel.deinterlaced(source, n > 0).planes[0]!;
      drawn.push(kernel.bytes(luma.offset, w * h).slice());
    }
    const ours = psnr((n) => drawn[n]!);
    const woven = psnr((n) => fields.subarray(n * size, (n + 1) * size));
    const general = psnr((n) => theirs.subarray(n * size, (n + 1) * size));
    expect(ours).toBeGreaterThan(woven + 4);
    expect(ours).toBeGreaterThan(general - 3);
  });
});
