import type { Source } from '@core/master/source';
import type { Size } from '@core/picture/size';
import type { PlannedFrame, RenderPlan } from '@core/render/plan';
import { type ColourFacts, conversion, limitedBt709 } from '@kernel/colour';
import { cubeFor } from '@kernel/colour-cube';
import { BLACK, type Kernel } from '@kernel/kernel';
import type { PixelLayout, PlanarPicture } from '@kernel/planes';
import { colourOf } from '../read/frame-colour';
import { planarFrame } from '../read/planar-frame';
import { copyPlanes, layoutOf, storedSize } from '../read/frame-planes';
import { openKernel } from '../read/open-kernel';
import { PanePainter } from './pane-painter';
import { WordBlender } from './word-blender';

/** Output colour, and what the file is tagged: limited-range BT.709. */
const OUTPUT_COLOUR = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false,
} as const satisfies VideoColorSpaceInit;

/**
 * Draws a plan's frames from decoded master frames, on YUV planes throughout. It keeps this contract:
 *
 * - Nothing outside the live area reaches a pixel of the clip: at its edges the picture repeats, whatever the pixel
 *   layout, tilt, turn, blur and pane (`kernel/live-part.test.ts`).
 * - The kernel's memory is taken once for all frames that the plan has of a source, and does not grow after that
 *   (`pane-painter.test.ts`).
 * - Colour is converted: matrices and ranges by BT.601, BT.709 and BT.2020, the primaries of BT.2020 and P3, and high
 *   dynamic range by the roll-off of BT.2390 (`kernel/colour-cube.test.ts`). A matrix that is not known throws.
 * - Every frame that is given stays the caller's to close, and every frame that is returned is the caller's to close.
 */
export class FrameRenderer {
  private readonly painter: PanePainter;
  /** By source, what its memory was taken for. */
  private readonly prepared = new Map<number, string>();

  private constructor(
    private readonly kernel: Kernel,
    private readonly plan: RenderPlan,
    private readonly words: WordBlender | null,
  ) {
    this.painter = new PanePainter(kernel, plan);
  }

  /** @throws TroubleError `server-down`, `server-answer`, `font-gone` where the fonts of its words cannot be had. */
  static async create(plan: RenderPlan): Promise<FrameRenderer> {
    const kernel = await openKernel();
    return new FrameRenderer(kernel, plan, await WordBlender.open(kernel, plan));
  }

  /**
   * Draws one output frame.
   * @param frame the decoded master frame; stays the caller's to close.
   * @param timestamp of the result, in microseconds. @param duration in microseconds.
   * @returns I420 in limited-range BT.709; the caller closes it.
   * @throws TroubleError `pixel-format` for a frame that cannot be read.
   */
  async draw(
    frame: VideoFrame,
    planned: PlannedFrame,
    timestamp: number,
    duration: number,
  ): Promise<VideoFrame> {
    const { ground } = this.plan;
    const source = this.plan.sources[planned.source] as Source;
    await this.drawPanes(frame, planned, source);
    const target = this.painter.target();
    this.toBt709(target, colourOf(frame, source));
    this.kernel.fillBars(
      target,
      planned.panes.map((pane) => pane.picture),
      ground === null ? BLACK : limitedBt709(ground),
    );
    this.words?.blend(target, planned.words);
    return planarFrame(this.kernel, target, { timestamp, duration }, OUTPUT_COLOUR);
  }

  private toBt709(target: PlanarPicture, facts: ColourFacts): void {
    const cube = cubeFor(facts);
    if (cube) return this.kernel.map(target, cube);
    const coefficients = conversion(facts);
    if (coefficients) this.kernel.convert(target, coefficients);
  }

  private async drawPanes(frame: VideoFrame, planned: PlannedFrame, source: Source): Promise<void> {
    const layout = layoutOf(frame);
    const stored = storedSize(frame);
    const facts = colourOf(frame, source);
    this.prepare(planned.source, layout, stored, facts);
    for (const [index, pane] of planned.panes.entries()) {
      const part = this.painter.partFor(source, layout, stored, pane, planned.live);
      await copyPlanes(this.kernel, part.picture, frame, part.rect, source);
      this.painter.paint(part, source, planned.masterFrame, stored, pane, index, this.painter.target());
    }
  }

  private prepare(source: number, layout: PixelLayout, stored: Size, facts: ColourFacts): void {
    const key = `${layout} ${stored.width}×${stored.height}`;
    if (this.prepared.get(source) === key) return;
    this.prepared.set(source, key);
    this.painter.prepare(source, layout, stored);
    this.toBt709(this.painter.target(), facts);
  }
}
