import type { Source } from '@core/master/source';
import type { PictureRect, Rect, Size } from '@core/picture/size';
import { WHOLE } from '@core/framing/window';
import { plannedFrame, type PlannedPane, type RenderPlan } from '@core/render/plan';
import { blurredSize, smoothBackdrop } from '@kernel/backdrop';
import { drawUpright } from './draw-upright';
import type { View } from './player-protocol';
import type { Picture } from './preview-picture';
import type { StageWords } from './stage-words';

type Ink = OffscreenCanvasRenderingContext2D;
interface Surface {
  surface: OffscreenCanvas;
  ink: Ink;
}

/** The picture of a frame, and what of it may show. */
interface StagePicture {
  picture: Picture;
  source: Source;
  live: PictureRect;
}

const BLACK = '#000';

/** Draws the preview: the same plan as the export, on 2D canvases that are kept from frame to frame. */
export class Stage {
  private readonly surfaces = new Map<string, OffscreenCanvas>();
  /** By view, what its panes were drawn of last. */
  private readonly drawn = new Map<View, readonly unknown[]>();

  constructor(private readonly words: StageWords) {}

  /** The master's picture, upright. */
  master(size: Size, picture: Picture, source: Source): ImageBitmap {
    const { surface, ink } = this.surface('master', size);
    drawUpright(ink, picture, source, WHOLE, WHOLE, { x: 0, y: 0, ...size });
    return surface.transferToImageBitmap();
  }

  /** Draws one frame of a canvas. */
  canvas(
    view: View,
    size: Size,
    plan: RenderPlan,
    frame: number,
    picture: Picture,
    source: Source,
  ): ImageBitmap {
    const { surface, ink } = this.surface(view, size);
    const planned = plannedFrame(plan, Math.min(frame, plan.frames - 1));
    // A surface of whole pixels may be a hair wider or higher than the canvas is in little: none of it stays bare.
    const scale = Math.max(size.width / plan.width, size.height / plan.height);
    const under = this.surface(`${view} under`, size);
    const of = [picture, plan.segments, plan.ground, frame, size.width, size.height];
    // Where only the words over them change, the panes are the same drawing.
    if (!this.drawn.get(view)?.every((part, i) => part === of[i])) {
      under.ink.fillStyle = plan.ground ?? BLACK;
      under.ink.fillRect(0, 0, size.width, size.height);
      const { panes, live } = planned;
      for (const pane of panes) this.pane(under.ink, pane, scale, { picture, source, live });
      this.drawn.set(view, of);
    }
    ink.drawImage(under.surface, 0, 0);
    this.words.draw(ink, planned.words, plan, scale);
    return surface.transferToImageBitmap();
  }

  private pane(ink: Ink, pane: PlannedPane, scale: number, shown: StagePicture): void {
    const { window, radius, blur } = pane;
    const to = scaleRect(pane.picture, scale);
    const { picture, source, live } = shown;
    if (blur > 0) return this.blurred(ink, pane, to, shown);
    if (radius === 0) return drawUpright(ink, picture, source, window, live, to);
    ink.save();
    ink.beginPath();
    ink.roundRect(to.x, to.y, to.width, to.height, radius * scale);
    ink.clip();
    drawUpright(ink, picture, source, window, live, to);
    ink.restore();
  }

  /** A window made small, smoothed and enlarged, as the export does it. */
  private blurred(ink: Ink, pane: PlannedPane, to: Rect, shown: StagePicture): void {
    const size = blurredSize(pane.picture.width, pane.picture.height, pane.blur);
    const small = this.surface('blurred', size);
    const { picture, source, live } = shown;
    drawUpright(small.ink, picture, source, pane.window, live, { x: 0, y: 0, ...size });
    const pixels = small.ink.getImageData(0, 0, size.width, size.height);
    for (let part = 0; part < 3; part++) {
      smoothBackdrop(pixels.data.subarray(part), { ...size, stride: size.width * 4, step: 4 });
    }
    small.ink.putImageData(pixels, 0, 0);
    ink.drawImage(small.surface, to.x, to.y, to.width, to.height);
  }

  private surface(name: string, size: Size): Surface {
    const known = this.surfaces.get(name);
    const surface = known ?? new OffscreenCanvas(size.width, size.height);
    this.surfaces.set(name, surface);
    if (surface.width !== size.width || surface.height !== size.height) {
      surface.width = size.width;
      surface.height = size.height;
    }
    const ink = surface.getContext('2d', { alpha: false });
    if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
    ink.imageSmoothingQuality = 'high';
    return { surface, ink };
  }
}

const scaleRect = ({ x, y, width, height }: Rect, by: number): Rect => ({
  x: x * by,
  y: y * by,
  width: width * by,
  height: height * by,
});
