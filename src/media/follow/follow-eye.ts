import type { Sighting, SubjectLook } from '@core/follow/evidence';
import { type Beside, movingParts } from '@core/follow/moving';
import { WHOLE } from '@core/framing/window';
import type { Source } from '@core/master/source';
import type { Grey } from '@core/pass/grey';
import type { PictureRect } from '@core/picture/size';
import { drawUpright } from '../play/draw-upright';
import type { Picture } from '../play/preview-picture';

/** Rows of the pictures in which movement is looked for, about; the long side is no longer than this. */
const LONG_SIDE = 320;

/** A frame made small: its grey levels, and its colours for what subjects look like. */
export interface SmallPicture {
  grey: Grey;
  /** Red, green, blue and nothing, a byte each. */
  pixels: Uint8ClampedArray;
}

/** Makes upright pictures small. */
export class SmallPictures {
  private readonly ink: OffscreenCanvasRenderingContext2D;
  readonly size: { width: number; height: number };

  constructor(private readonly source: Source) {
    const { width, height } = source.picture;
    const scale = LONG_SIDE / Math.max(width, height);
    this.size = {
      width: Math.max(2, Math.round(width * scale)),
      height: Math.max(2, Math.round(height * scale)),
    };
    const ink = new OffscreenCanvas(this.size.width, this.size.height).getContext('2d', {
      willReadFrequently: true,
    });
    if (!ink) throw new Error('a canvas of two dimensions cannot be had');
    ink.imageSmoothingQuality = 'medium';
    this.ink = ink;
  }

  /** A decoded picture, made small. */
  take(picture: Picture): SmallPicture {
    const { width, height } = this.size;
    drawUpright(this.ink, picture, this.source, WHOLE, WHOLE, { x: 0, y: 0, width, height });
    const pixels = this.ink.getImageData(0, 0, width, height).data;
    const data = new Uint8Array(width * height);
    // Luma by BT.709, which is near enough for any master here.
    for (let i = 0, from = 0; i < data.length; i++, from += 4)
      data[i] =
        0.2126 * (pixels[from] as number) +
        0.7152 * (pixels[from + 1] as number) +
        0.0722 * (pixels[from + 2] as number);
    return { grey: { width, height, data }, pixels };
  }
}

/** What moves in a picture, between others beside it. */
export function seenMoving(now: SmallPicture, before: Beside, after: Beside): Sighting[] {
  return movingParts(now.grey, before, after).map(({ box, strength }) => ({
    ...{ kind: 'motion', confidence: strength, box, look: lookOf(now, box) },
  }));
}

/** What lies in a box looks like: mean luma and colour differences of its upper and its lower half (BT.709). */
export function lookOf({ grey: { width, height }, pixels }: SmallPicture, box: PictureRect): SubjectLook {
  const clip = (value: number, most: number) => Math.min(most, Math.max(0, Math.round(value)));
  const [left, right] = [clip(box.x * width, width - 1), clip((box.x + box.width) * width, width)];
  const edges = [0, 0.5, 1].map((share) => clip((box.y + box.height * share) * height, height));
  return [0, 1].flatMap((half) => {
    const sums = [0, 0, 0];
    let count = 0;
    for (let y = edges[half] as number; y < (edges[half + 1] as number); y++) {
      for (let x = left; x < right; x++) {
        const at = (y * width + x) * 4;
        for (let k = 0; k < 3; k++) sums[k] = (sums[k] as number) + (pixels[at + k] as number);
        count += 1;
      }
    }
    const [r, g, b] = sums.map((sum) => sum / Math.max(1, count)) as [number, number, number];
    const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    return [luma, 128 + (b - luma) / 1.8556, 128 + (r - luma) / 1.5748].map((level) =>
      Number(level.toFixed(1)),
    );
  });
}
