import type { PlanarPicture } from './planes';
import type { Kernel } from './kernel';

/** A single plane of 8-bit samples. */
export interface Plane {
  data: Uint8Array;
  width: number;
  height: number;
}

/** A natural-looking plane: soft shapes, edges, fine texture; repeatable. */
export function naturalPlane(width: number, height: number, seed = 1): Plane {
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const hills = 40 * Math.sin((x * seed) / 31) + 35 * Math.cos((y + x / 3) / 23);
      const disc = Math.hypot(x - width * 0.6, y - height * 0.4) < height * 0.2 ? 60 : 0;
      const cloth = 8 * Math.sin(x * 0.9) * Math.sin(y * 0.7);
      data[y * width + x] = Math.max(16, Math.min(235, Math.round(110 + hills + disc + cloth)));
    }
  }
  return { data, width, height };
}

/** A synthetic plane: rings whose spacing runs from coarse to fine (a zone plate, to a third of the sampling rate). */
export function ringsPlane(width: number, height: number): Plane {
  const data = new Uint8Array(width * height);
  const fine = (Math.PI * 0.66) / Math.hypot(width, height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      data[y * width + x] = Math.round(126 + 90 * Math.cos((fine / 2) * (x * x + y * y)));
    }
  }
  return { data, width, height };
}

/** Puts a luma plane into a source picture of the kernel, with flat chroma. */
export function lumaSource(kernel: Kernel, { data, width, height }: Plane, chroma = 128): PlanarPicture {
  const source = kernel.source('I420', width, height);
  kernel.bytes(source.address, source.size).fill(chroma).set(data);
  return source;
}

/** A plane of a picture copied out, without padding. */
export function readPlane(kernel: Kernel, picture: PlanarPicture, index: number): Plane {
  const { offset, stride, width, height } = picture.planes[index] as PlanarPicture['planes'][number];
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) data.set(kernel.bytes(offset + y * stride, width), y * width);
  return { data, width, height };
}

/** Peak signal-to-noise ratio in decibels, leaving out `edge` samples at every side. */
export function computePsnr(a: Plane, b: Plane, edge = 0): number {
  let sum = 0;
  let count = 0;
  for (let y = edge; y < a.height - edge; y++) {
    for (let x = edge; x < a.width - edge; x++) {
      const difference = (a.data[y * a.width + x] as number) - (b.data[y * a.width + x] as number);
      sum += difference * difference;
      count += 1;
    }
  }
  return sum === 0 ? Infinity : 10 * Math.log10((255 * 255 * count) / sum);
}
