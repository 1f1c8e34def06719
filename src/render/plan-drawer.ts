import type { Source } from '@core/master/source';
import type { Rect, Size } from '@core/picture/size';
import type { PlannedFrame, RenderPlan } from '@core/render/plan';
import { type ColourFacts, conversion, hexToLimitedBt709 } from '@kernel/colour';
import { createColourCube } from '@kernel/colour-cube';
import { BLACK, type Kernel } from '@kernel/kernel';
import type { PixelLayout, PlanarPicture } from '@kernel/planes';
import { PanePainter } from './pane-painter';

/** A decoded master frame, whoever decoded it. */
export interface DecodedPicture {
  layout: PixelLayout;
  /** As it is stored, in samples. */
  stored: Size;
  colour: ColourFacts;
  /** Copies a part of it, in samples, into a picture of the kernel's memory that has that size. */
  copy(picture: PlanarPicture, part: Rect): Promise<void>;
}

/** Lays words over a finished picture: I420 in limited-range BT.709. */
export interface WordLayer {
  blend(target: PlanarPicture, words: PlannedFrame['words']): void;
}

/**
 * Draws a plan's frames from decoded master frames, on YUV planes throughout. It keeps this contract:
 *
 * - Nothing outside the live area reaches a pixel of the clip: at its edges the picture repeats, whatever the pixel
 *   layout, tilt, turn, blur and pane (`kernel/live-part.test.ts`).
 * - The kernel's memory is taken once for all frames that the plan has of a source, and does not grow after that
 *   (`pane-painter.test.ts`).
 * - Colour is converted: matrices and ranges by BT.601, BT.709 and BT.2020, the primaries of BT.2020 and P3, and high
 *   dynamic range by the roll-off of BT.2390 (`kernel/colour-cube.test.ts`). A matrix that is not known throws.
 */
export class PlanDrawer {
  private readonly painter: PanePainter;
  /** By source, what its memory was taken for. */
  private readonly prepared = new Map<number, string>();

  constructor(
    private readonly kernel: Kernel,
    private readonly plan: RenderPlan,
    private readonly words: WordLayer | null,
  ) {
    this.painter = new PanePainter(kernel, plan);
  }

  /** Draws one output frame. @returns I420 in limited-range BT.709, valid until the next one is drawn. */
  async draw(decoded: DecodedPicture, planned: PlannedFrame): Promise<PlanarPicture> {
    const { ground } = this.plan;
    const source = this.plan.sources[planned.source] as Source;
    await this.drawPanes(decoded, planned, source);
    const target = this.painter.target();
    this.toBt709(target, decoded.colour);
    this.kernel.fillBars(
      target,
      planned.panes.map((pane) => pane.picture),
      ground === null ? BLACK : hexToLimitedBt709(ground),
    );
    this.words?.blend(target, planned.words);
    return target;
  }

  private toBt709(target: PlanarPicture, facts: ColourFacts): void {
    const cube = createColourCube(facts);
    if (cube) return this.kernel.map(target, cube);
    const coefficients = conversion(facts);
    if (coefficients) this.kernel.convert(target, coefficients);
  }

  private async drawPanes(decoded: DecodedPicture, planned: PlannedFrame, source: Source): Promise<void> {
    const { layout, stored } = decoded;
    this.prepare(planned.source, decoded);
    for (const [index, pane] of planned.panes.entries()) {
      const part = this.painter.findPart(source, layout, stored, pane, planned.live);
      await decoded.copy(part.picture, part.rect);
      this.painter.paint(part, source, planned.masterFrame, stored, pane, index, this.painter.target());
    }
  }

  private prepare(source: number, { layout, stored, colour }: DecodedPicture): void {
    const key = `${layout} ${stored.width}×${stored.height}`;
    if (this.prepared.get(source) === key) return;
    this.prepared.set(source, key);
    this.painter.prepare(source, layout, stored);
    this.toBt709(this.painter.target(), colour);
  }
}
