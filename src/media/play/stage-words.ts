import type { PlannedFrame, RenderPlan } from '@core/render/plan';
import type { TextArt } from '@core/words/text-art';
import { Drawings } from '@render/words/drawings';
import { openFonts } from '../words/fonts';

/** Words over the preview: drawn at the canvas's own size as the export draws them, and then made small. */
export class StageWords {
  private drawings: Drawings | null = null;
  private loading: Promise<void> = Promise.resolve();
  private readonly asked = new WeakSet<TextArt>();

  /** @param onReady what was drawn without some of its words can be drawn whole. @param onTrouble they cannot be had. */
  constructor(
    private readonly onReady: () => void,
    private readonly onTrouble: (error: unknown) => void,
  ) {}

  /** @param scale pixels of the surface for each of the canvas. */
  draw(
    ink: OffscreenCanvasRenderingContext2D,
    words: PlannedFrame['words'],
    plan: RenderPlan,
    scale: number,
  ): void {
    const { drawings } = this;
    const missing = words.map(({ art }) => art).filter((art) => !drawings?.ready(art));
    if (missing.length > 0) this.load(missing);
    if (!drawings) return;
    for (const { art, presence } of words) {
      const drawing = drawings.ready(art) ? drawings.of(art, plan) : null;
      if (!drawing) continue;
      const { x, y, width, height } = drawing.rect;
      ink.globalAlpha = presence;
      ink.drawImage(drawing.surface, x * scale, y * scale, width * scale, height * scale);
      ink.globalAlpha = 1;
    }
  }

  /** Words whose fonts could not be had are asked for again only when they change. */
  private load(arts: readonly TextArt[]): void {
    const wanted = arts.filter((art) => !this.asked.has(art));
    if (wanted.length === 0) return;
    for (const art of wanted) this.asked.add(art);
    this.loading = this.loading
      .then(async () => {
        this.drawings ??= new Drawings(await openFonts());
        await this.drawings.load(wanted);
        this.onReady();
      })
      .catch(this.onTrouble);
  }
}
