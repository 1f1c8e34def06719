import type { Source } from '@core/master/source';
import type { PictureRect, Rect, Size } from '@core/picture/size';
import type { PlannedPane, RenderPlan } from '@core/render/plan';
import { scaleBlurred } from '@kernel/backdrop';
import type { Kernel } from '@kernel/kernel';
import { layOver } from '@kernel/lay-over';
import type { PixelLayout, PlanarPicture } from '@kernel/planes';
import { sharpen } from '@kernel/sharpen';
import { scaleTilted } from '@kernel/tilt';
import { largestPanes } from './largest-panes';
import { isTurned, toLiveSamples, computePart, toTiltedWindow } from './window-samples';

/** A part of a stored picture that lies in the kernel's memory, or is to be copied there. */
export interface Part {
  /** Of the stored picture, in samples. */
  rect: Rect;
  picture: PlanarPicture;
}

/** Paints panes on a canvas's planes. */
export class PanePainter {
  /** The frame whose fields the kernel remembers. */
  private lastFields: { id: string; frame: number; picture: PlanarPicture } | null = null;

  constructor(
    private readonly kernel: Kernel,
    private readonly plan: RenderPlan,
  ) {}

  /** The planes of the canvas. */
  target(): PlanarPicture {
    return this.kernel.target(this.plan.width, this.plan.height);
  }

  /**
   * Takes all the memory that the plan's frames of a source need, by painting the largest of them blank.
   * @param stored size of the source's pictures as they are stored.
   */
  prepare(source: number, layout: PixelLayout, stored: Size): void {
    const facts = this.plan.sources[source] as Source;
    const target = this.target();
    for (const { segment, index, pane } of largestPanes(this.plan, source, stored)) {
      const part = this.findPart(facts, layout, stored, pane, segment.live);
      this.kernel.bytes(part.picture.address, part.picture.size).fill(0);
      this.paint(part, facts, -1, stored, pane, index, target);
    }
    this.lastFields = null;
  }

  /** Room for the part of a stored picture that a pane needs, to be filled. @param live 0…1 of the upright picture. */
  findPart(source: Source, layout: PixelLayout, stored: Size, pane: PlannedPane, live: PictureRect): Part {
    const rect = computePart(stored, source, toTiltedWindow(stored, source, pane.window));
    const picture = this.kernel.source(layout, rect.width, rect.height);
    return { rect, picture: { ...picture, live: toLiveSamples(rect, stored, source, live) } };
  }

  /** Paints a pane's window where it lies, or beside it first where it must not spill or has round corners. */
  paint(
    { rect: part, picture: copy }: Part,
    source: Source,
    masterFrame: number,
    stored: Size,
    { picture, window, radius, blur }: PlannedPane,
    index: number,
    target: PlanarPicture,
  ): void {
    const { kernel } = this;
    const slot = `pane-${index}`;
    const samples = this.upright(copy, source, masterFrame);
    const whole = toTiltedWindow(stored, source, window);
    const from = { ...whole, x: whole.x - part.x, y: whole.y - part.y };
    const beside = radius > 0 || picture.x + picture.width < target.width;
    const own = { x: 0, y: 0, width: picture.width, height: picture.height };
    const surface = beside ? kernel.picture(slot, 'I420', own.width, own.height, 16) : target;
    const rect = beside ? own : picture;
    if (blur > 0) scaleBlurred(kernel, samples, from, surface, rect, blur);
    else if (window.angle === 0) kernel.scale(samples, from, surface, rect, slot);
    else scaleTilted(kernel, samples, from, surface, rect, slot);
    // A backdrop is soft on purpose.
    if (this.plan.sharpening && blur === 0) sharpen(kernel, surface, rect, this.plan.sharpening);
    if (beside) layOver(kernel, surface, target, picture, radius);
  }

  /** A picture as it is shown: whole frames, turned and mirrored. */
  private upright(picture: PlanarPicture, source: Source, frame: number): PlanarPicture {
    const fields = source.deinterlace ? this.wholeFrame(picture, source, frame) : picture;
    const quarters = (source.rotation / 90) as 0 | 1 | 2 | 3;
    return isTurned(source) ? this.kernel.turned(fields, quarters, source.flip) : fields;
  }

  /** A frame without combing; the frame before it helps where it was the last one painted. */
  private wholeFrame(picture: PlanarPicture, source: Source, frame: number): PlanarPicture {
    const last = this.lastFields?.id === source.id ? this.lastFields : null;
    // Another pane of the same frame, or the frame again at another rate.
    if (last?.frame === frame) return last.picture;
    const drawn = this.kernel.deinterlaced(picture, last?.frame === frame - 1);
    this.lastFields = { id: source.id, frame, picture: drawn };
    return drawn;
  }
}
