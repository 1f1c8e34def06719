import { type SmallPicture, smallPicture } from '@core/follow/sampler';
import { WHOLE } from '@core/framing/window';
import type { Source } from '@core/master/source';
import { drawUpright } from '../play/draw-upright';
import type { Picture } from '../play/preview-picture';

/** Rows of the pictures in which movement is looked for, about; the long side is no longer than this. */
const LONG_SIDE = 320;

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
    return smallPicture(this.ink.getImageData(0, 0, width, height).data, width, height);
  }
}
