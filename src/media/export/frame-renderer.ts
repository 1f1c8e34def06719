import type { Source } from '@core/master/source';
import type { PlannedFrame, RenderPlan } from '@core/render/plan';
import type { Kernel } from '@kernel/kernel';
import { toColourFacts } from '@render/frame-colour';
import { PlanDrawer } from '@render/plan-drawer';
import { WordBlender } from '@render/words/word-blender';
import { planarFrame } from '../read/planar-frame';
import { copyPlanes, toPixelLayout, storedSize } from '../read/frame-planes';
import { openKernel } from '../read/open-kernel';
import { openFonts } from '../words/fonts';

/** Output colour, and what the file is tagged: limited-range BT.709. */
const OUTPUT_COLOUR = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false,
} as const satisfies VideoColorSpaceInit;

/**
 * Draws a plan's frames from those that the browser decodes. Every frame that is given stays the caller's to close, and
 * every frame that is returned is the caller's to close.
 */
export class FrameRenderer {
  private readonly drawer: PlanDrawer;

  private constructor(
    private readonly kernel: Kernel,
    private readonly plan: RenderPlan,
    words: WordBlender | null,
  ) {
    this.drawer = new PlanDrawer(kernel, plan, words);
  }

  /** @throws TroubleError `server-down`, `server-answer`, `font-gone` where the fonts of its words cannot be had. */
  static async create(plan: RenderPlan): Promise<FrameRenderer> {
    const kernel = await openKernel();
    return new FrameRenderer(kernel, plan, await WordBlender.open(kernel, plan, openFonts));
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
    const source = this.plan.sources[planned.source] as Source;
    const drawn = await this.drawer.draw(
      {
        layout: toPixelLayout(frame),
        stored: storedSize(frame),
        colour: toColourFacts(frame, source),
        copy: (picture, part) => copyPlanes(this.kernel, picture, frame, part, source),
      },
      planned,
    );
    return planarFrame(this.kernel, drawn, { timestamp, duration }, OUTPUT_COLOUR);
  }
}
