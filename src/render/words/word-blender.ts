import { memoize } from '@core/figures/memoize';
import type { PlannedFrame, RenderPlan } from '@core/render/plan';
import type { Kernel } from '@kernel/kernel';
import { type Overlay, OverlayBlender, createOverlay } from '@kernel/overlay';
import type { PlanarPicture } from '@kernel/planes';
import type { WordLayer } from '../plan-drawer';
import { Drawings } from './drawings';
import type { Fonts } from './fonts';
import type { Drawing } from './text-painter';

/** Turns a drawing into planes that a kernel lays over a frame. */
function toPlanes({ surface, rect }: Drawing): Overlay {
  const ink = surface.getContext('2d');
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  return createOverlay(ink.getImageData(0, 0, rect.width, rect.height).data, rect);
}

/** Lays a plan's words over its frames. A drawing is turned into planes once, when it first shows. */
export class WordBlender implements WordLayer {
  private readonly blender: OverlayBlender;
  private readonly planesOf = memoize(toPlanes);
  private constructor(
    kernel: Kernel,
    private readonly plan: RenderPlan,
    private readonly drawings: Drawings,
  ) {
    this.blender = new OverlayBlender(kernel);
  }

  /**
   * Loads the fonts of all words of a plan.
   * @returns null for a plan without words. @throws TroubleError `server-down`, `server-answer`, `font-gone`.
   */
  static async open(
    kernel: Kernel,
    plan: RenderPlan,
    openFonts: () => Promise<Fonts>,
  ): Promise<WordBlender | null> {
    if (plan.overlays.length === 0) return null;
    const drawings = new Drawings(await openFonts());
    await drawings.load(plan.overlays.map((overlay) => overlay.art));
    return new WordBlender(kernel, plan, drawings);
  }

  /** @param target I420 in limited-range BT.709. */
  blend(target: PlanarPicture, words: PlannedFrame['words']): void {
    words.forEach(({ art, presence }, slot) => {
      const drawing = this.drawings.of(art, this.plan);
      if (drawing) this.blender.blend(this.planesOf(drawing), target, presence, slot);
    });
  }
}
