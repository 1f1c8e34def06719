import type { Source } from '@core/master/source';
import { plannedFrame, type RenderPlan } from '@core/render/plan';
import { luminanceOf } from '@core/words/contrast';
import { leastContrast } from '@core/words/contrast-cells';
import type { TextArt } from '@core/words/text-art';
import { pictureOf } from '../play/preview-picture';
import { Stage } from '../play/stage';
import { StageWords } from '../play/stage-words';
import { ReaderPool } from '../read/reader-pool';
import { throwIfStopped, type TaskContext } from '../worker/serve-task';
import { Fonts } from './fonts';
import { type DrawnParts, TextPainter } from './text-painter';

/** Words at output frames of a plan, to be looked at on the pictures behind them. */
export interface ContrastRequest {
  /** Its own words are not drawn. */
  plan: RenderPlan;
  looks: { frame: number; art: TextArt }[];
}

/** How little words stand out at a frame. */
export interface LookedContrast {
  frame: number;
  ratio: number;
  /** Of the letters there, in pixels of the canvas. */
  size: number;
}

/** Places are judged whose side is this share of the letters' size. */
const CELL = 0.5;

/** Measures words on the pixels behind them, frame by frame. @returns the worst; null where none is seen. */
export async function measureContrast(
  { plan, looks }: ContrastRequest,
  { report, signal }: TaskContext,
): Promise<LookedContrast | null> {
  const fonts = await Fonts.open();
  await fonts.load(looks.map(({ art }) => art));
  const painter = new TextPainter(fonts);
  const stage = new Stage(
    new StageWords(
      () => undefined,
      () => undefined,
    ),
  );
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
      const picture = await pictureOf(sample, source, true);
      const { width, height } = plan;
      const shown = stage.canvas('master', { width, height }, bare, frame, picture, source);
      picture.close();
      const ratio = ratioOf(shown, parts, art);
      shown.close();
      if (ratio !== null && (worst === null || ratio < worst.ratio))
        worst = { frame, ratio, size: parts.laid.size };
    }
    return worst;
  } finally {
    readers.close();
  }
}

/** The least contrast of letters on a picture of the whole canvas. */
function ratioOf(
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
    letters: alphaOf(letters),
    rim: alphaOf(rim),
  };
  return leastContrast(pixels, Math.max(4, Math.round(CELL * laid.size)), luminanceOf(art.style.colour));
}

function alphaOf(surface: OffscreenCanvas): Uint8Array {
  const ink = surface.getContext('2d');
  if (!ink) throw new Error('this browser gives no 2D canvas to a worker');
  const { data } = ink.getImageData(0, 0, surface.width, surface.height);
  return Uint8Array.from({ length: data.length / 4 }, (_, i) => data[4 * i + 3] as number);
}
