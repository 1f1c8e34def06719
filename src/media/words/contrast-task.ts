import type { Source } from '@core/master/source';
import { findOverlays, type PlanOverlay } from '@core/render/overlays';
import { plannedFrame, type RenderPlan } from '@core/render/plan';
import { computeLuminance } from '@core/words/contrast';
import { findMinContrast } from '@core/words/contrast-cells';
import { sampleContrastFrames } from '@core/words/contrast-frames';
import type { TextArt } from '@core/words/text-art';
import { type DrawnParts, TextPainter } from '@render/words/text-painter';
import { toPreviewPicture } from '../play/preview-picture';
import { Stage } from '../play/stage';
import { StageWords } from '../play/stage-words';
import { ReaderPool } from '../read/reader-pool';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { openFonts } from './fonts';

/** Words of a plan that are looked at on the pictures behind them. */
export interface ContrastRequest {
  plan: RenderPlan;
  own: readonly PlanOverlay[];
}

/** How little words stand out at a frame. */
interface LookedContrast {
  frame: number;
  ratio: number;
  /** Of the letters there, in pixels of the canvas. */
  size: number;
}

/** Result for words: their minimum contrast, and the first frame at which they are larger than their box. */
export interface LookedWords {
  /** Null where none is seen. */
  worst: LookedContrast | null;
  over: number | null;
}

/** Places are judged whose side is this share of the letters' size. */
const CELL = 0.5;
/** Frames that are looked at: of few words these, of many words one of each, and not more than that. */
const FEW = 12;
const MAX_FRAMES = 40;

/** Measures words on the pixels behind them, frame by frame, and whether they have room. */
export async function measureContrast(
  { plan, own }: ContrastRequest,
  { report, signal }: TaskContext,
): Promise<LookedWords> {
  const looks = sampleContrastFrames(own, Math.min(MAX_FRAMES, Math.max(FEW, own.length)))
    .flatMap((frame) => findOverlays(own, frame).map(({ art }) => ({ frame, art })))
    .slice(0, MAX_FRAMES);
  const fonts = await openFonts();
  await fonts.load(own.map(({ art }) => art));
  const painter = new TextPainter(fonts);
  const stage = new Stage(
    new StageWords(
      () => undefined,
      () => undefined,
    ),
  );
  // Its own words are not drawn.
  const bare = { ...plan, overlays: [] };
  const readers = new ReaderPool(plan.sources);
  let worst: LookedContrast | null = null;
  try {
    for (const [i, { frame, art }] of looks.entries()) {
      throwIfStopped(signal);
      report({ stage: 'contrast', done: i, total: looks.length });
      const parts = painter.parts(art, plan);
      if (!parts) continue;
      const planned = plannedFrame(bare, frame);
      const source = plan.sources[planned.source] as Source;
      const sample = await (await readers.of(planned.source)).frame(planned.masterFrame);
      if (!sample) continue;
      const picture = await toPreviewPicture(sample, source, true);
      const { width, height } = plan;
      const shown = stage.canvas('master', { width, height }, bare, frame, picture, source);
      picture.close();
      const ratio = computeRatio(shown, parts, art);
      shown.close();
      if (ratio !== null && (worst === null || ratio < worst.ratio))
        worst = { frame, ratio, size: parts.laid.size };
    }
    const over = own.find(({ art }) => painter.lay(art).over);
    return { worst, over: over?.from ?? null };
  } finally {
    readers.close();
  }
}

/** The least contrast of letters on a picture of the whole canvas. */
function computeRatio(
  shown: ImageBitmap,
  { rect, laid, behind, letters, rim }: DrawnParts,
  art: TextArt,
): number | null {
  const { x, y, width, height } = rect;
  const surface = new OffscreenCanvas(width, height);
  const ink = surface.getContext('2d', { willReadFrequently: true });
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  ink.drawImage(shown, x, y, width, height, 0, 0, width, height);
  ink.drawImage(behind, 0, 0);
  const pixels = {
    width,
    height,
    behind: ink.getImageData(0, 0, width, height).data,
    letters: readAlpha(letters),
    rim: readAlpha(rim),
  };
  const cell = Math.max(4, Math.round(CELL * laid.size));
  // The word that is spoken has a colour of its own, and each word is that once.
  const ratios = [art.style.colour, ...(art.mark ? [art.mark.colour] : [])].flatMap(
    (colour) => findMinContrast(pixels, cell, computeLuminance(colour)) ?? [],
  );
  return ratios.length > 0 ? Math.min(...ratios) : null;
}

function readAlpha(surface: OffscreenCanvas): Uint8Array {
  const ink = surface.getContext('2d');
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  const { data } = ink.getImageData(0, 0, surface.width, surface.height);
  return Uint8Array.from({ length: data.length / 4 }, (_, i) => data[4 * i + 3] as number);
}
