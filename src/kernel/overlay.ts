import { toLimitedBt709 } from './colour';
import type { Kernel } from './kernel';
import { alignUp } from './memory';
import type { PlanarPicture, PlaneShape, SampleWindow } from './planes';

/** Samples of one plane, premultiplied by how much they cover: 0…255. */
interface CoveredPlane {
  samples: Uint8Array;
  covers: Uint8Array;
  /** Of a row, padded; and the rows. */
  stride: number;
  width: number;
  height: number;
}

/** A drawing that covers a part of a picture, as planes of limited-range BT.709. */
export interface Overlay {
  /** Whole even luma samples of the picture. */
  rect: SampleWindow;
  /** Luma, Cb, Cr. */
  planes: readonly CoveredPlane[];
}

/**
 * A drawing in red, green, blue and alpha, not premultiplied, as planes: chroma is the mean of what it stands for,
 * weighted by alpha, sited left across and between rows down (ITU-T H.264 Annex E, chroma_sample_loc_type 0).
 * @param pixels rows of `rect.width` pixels of four bytes. @param rect on even edges.
 * @throws RangeError for odd edges.
 */
export function createOverlay(pixels: Uint8ClampedArray | Uint8Array, rect: SampleWindow): Overlay {
  const { width, height } = rect;
  if ([rect.x, rect.y, width, height].some((edge) => edge % 2)) {
    throw new RangeError('an overlay needs even edges');
  }
  const luma = plane(width, height);
  const [cb, cr] = [plane(width / 2, height / 2), plane(width / 2, height / 2)];
  // Of a pair of rows: premultiplied chroma, and alpha.
  const rows = new Float32Array(3 * width);
  for (let y = 0; y < height; y++) {
    if (y % 2 === 0) rows.fill(0);
    for (let x = 0; x < width; x++) {
      const at = 4 * (y * width + x);
      const cover = pixels[at + 3] as number;
      if (cover === 0) continue;
      const [l, u, v] = toCodes(pixels[at] as number, pixels[at + 1] as number, pixels[at + 2] as number);
      const share = cover / 255;
      luma.samples[y * luma.stride + x] = Math.round(l * share);
      luma.covers[y * luma.stride + x] = cover;
      rows[x] = (rows[x] as number) + (u * share) / 2;
      rows[width + x] = (rows[width + x] as number) + (v * share) / 2;
      rows[2 * width + x] = (rows[2 * width + x] as number) + cover / 2;
    }
    if (y % 2 === 1) siteChroma(rows, width, (y - 1) / 2, cb, cr);
  }
  return { rect, planes: [luma, cb, cr] };
}

/** Luma, Cb and Cr of a colour: a drawing has few of them, so that the last one is remembered. */
let lastColour = -1;
let lastCodes: readonly [number, number, number] = [16, 128, 128];
function toCodes(red: number, green: number, blue: number): readonly [number, number, number] {
  const colour = (red << 16) | (green << 8) | blue;
  if (colour !== lastColour) {
    lastColour = colour;
    lastCodes = toLimitedBt709([red / 255, green / 255, blue / 255]);
  }
  return lastCodes;
}

function plane(width: number, height: number): CoveredPlane {
  const stride = alignUp(width, 16);
  const bytes = stride * height;
  return { samples: new Uint8Array(bytes), covers: new Uint8Array(bytes), stride, width, height };
}

/** A row of chroma from a pair of rows: 1-2-1 around every other column. */
function siteChroma(rows: Float32Array, width: number, y: number, cb: CoveredPlane, cr: CoveredPlane): void {
  const around = (part: number, x: number) => {
    const from = part * width;
    const [before, after] = [Math.max(0, x - 1), Math.min(width - 1, x + 1)];
    return (
      ((rows[from + before] as number) + 2 * (rows[from + x] as number) + (rows[from + after] as number)) / 4
    );
  };
  for (let x = 0; x < cb.width; x++) {
    const cover = around(2, 2 * x);
    if (cover === 0) continue;
    const at = y * cb.stride + x;
    cb.samples[at] = Math.round(around(0, 2 * x));
    cr.samples[at] = Math.round(around(1, 2 * x));
    cb.covers[at] = cr.covers[at] = Math.round(cover);
  }
}

/** Lays overlays over a picture. What was laid over the picture before stays in the kernel's memory. */
export class OverlayBlender {
  /** By slot, what lies in the memory. */
  private readonly held = new Map<number, Overlay>();

  constructor(private readonly kernel: Kernel) {}

  /**
   * @param target I420 in limited-range BT.709. @param presence of the overlay, 0…1.
   * @param slot overlays that are there at one time each have their own.
   */
  blend(overlay: Overlay, target: PlanarPicture, presence: number, slot: number): void {
    const part = Math.round(presence * 256);
    if (part === 0) return;
    const sizes = overlay.planes.map(({ samples }) => samples.length);
    const address = this.kernel.block(`overlay-${slot}`, 2 * sizes.reduce((sum, size) => sum + size, 0));
    const put = this.held.get(slot) !== overlay;
    this.held.set(slot, overlay);
    let at = address;
    overlay.planes.forEach(({ samples, covers, stride, width, height }, index) => {
      const [from, cover] = [at, at + samples.length];
      at = cover + covers.length;
      if (put) {
        this.kernel.bytes(from, samples.length).set(samples);
        this.kernel.bytes(cover, covers.length).set(covers);
      }
      const to = target.planes[index] as PlaneShape;
      const sub = index === 0 ? 1 : 2;
      const corner = to.offset + (overlay.rect.y / sub) * to.stride + overlay.rect.x / sub;
      this.kernel.exports.blendPlane(corner, to.stride, from, cover, stride, width, height, part);
    });
  }
}
