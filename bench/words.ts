/** Benchmarks of words on the picture, in the harness page. */
import { computeMedian } from '../src/core/figures/median';
import { createRenderPlan, type RenderPlan, withWords } from '../src/core/render/plan';
import type { Source } from '../src/core/master/source';
import { makeCanvas } from '../src/core/layout/canvas';
import { rateValue } from '../src/core/time/frame-rate';
import { NO_CAPTIONS } from '../src/core/words/captions';
import { rewordCue, withCue } from '../src/core/words/cue-edits';
import { type ClipText, NO_TEXT } from '../src/core/words/clip-text';
import { plainBlock } from '../src/core/words/text-block';
import { drawnPlayer } from './drawn-player';
import { canvasView } from '../src/media/play/player-protocol';
import { openFonts } from '../src/media/words/fonts';
import { TextPainter } from '../src/render/words/text-painter';
import { makeExport } from '../src/media/worker/tasks';
import { createEncodeSettings } from './making';

const SIZES = [
  { width: 1080, height: 1920 },
  { width: 1080, height: 1080 },
  { width: 1080, height: 1350 },
];
/** Keystrokes that are measured. */
const KEYS = 60;
/** Rows of the view that is drawn, a phone's. */
const ROWS = 760;

/** So many captions of a line of ten words one after another, and two blocks, one of them with a plate. */
function createText(source: Source, frames: number, captions: number): ClipText {
  const each = Math.max(2, Math.floor(frames / captions));
  const cues = Array.from({ length: captions }, (_, i) => ({
    id: `cue-${i}`,
    text: `and with the wind the kites\ncome back to the bay, ${i} of them`,
    spans: [{ master: source.id, in: i * each, out: Math.min(frames, (i + 1) * each - 1) }],
  }));
  const blocks = [
    {
      ...plainBlock('headline', 'Kite Day at Windle Bay'),
      box: { x: 0.05, y: 0.1, width: 0.9, height: 0.1 },
    },
    { ...plainBlock('tag', 'Saturday, from noon'), fade: 0.5 },
  ];
  return { ...NO_TEXT, blocks, captions: { ...NO_CAPTIONS, cues } };
}

function createPlan(source: Source, frames: number, size: { width: number; height: number }): RenderPlan {
  const cut = [{ master: source.id, in: 0, out: frames }];
  return createRenderPlan(makeCanvas(null, size, source.rate, 'canvas-1'), {
    cut,
    shots: [],
    framings: [],
    sources: [source],
  });
}

function addWords(plan: RenderPlan, source: Source, frames: number, text: ClipText): RenderPlan {
  const cut = [{ master: source.id, in: 0, out: frames }];
  const { width, height } = plan;
  return withWords(plan, makeCanvas(null, { width, height }, source.rate, 'canvas-1'), { cut, text });
}

/** Milliseconds of exporting the tall canvas with a caption every two seconds and two blocks, or without any words. */
export async function exportWords(
  source: Source,
  seconds: number,
  words: boolean,
  videoBits: number,
): Promise<number> {
  const frames = Math.round(seconds * rateValue(source.rate));
  const bare = createPlan(source, frames, SIZES[0]!);
  const plan = words ? addWords(bare, source, frames, createText(source, frames, seconds / 2)) : bare;
  const start = performance.now();
  await makeExport(
    { outputs: [{ name: 'bench-words.mp4', plan, making: createEncodeSettings(plan, videoBits) }] },
    {},
  );
  return performance.now() - start;
}

/**
 * Median milliseconds from a keystroke in one of many captions until the canvas is drawn with it, and those that the
 * page's own thread is busy with it.
 */
export async function keystroke(source: Source, captions: number): Promise<{ redraw: number; page: number }> {
  const { player, drawn } = drawnPlayer(source);
  const view = canvasView('canvas-1');
  const plan = createPlan(source, source.frames, SIZES[0]!);
  player.setViews({ [view]: { width: Math.round((ROWS * 1080) / 1920), height: ROWS } });
  const text = createText(source, source.frames, captions);
  const shown = `cue-${captions >> 1}`;
  player.setPlans({ [view]: [addWords(plan, source, source.frames, text)] });
  player.show(0, text.captions.cues[captions >> 1]?.spans[0]?.in ?? 0);
  // Fonts are loaded when words first need them.
  await new Promise((resolve) => setTimeout(resolve, 3000));
  const [redraws, pages]: [number[], number[]] = [[], []];
  for (let n = 0; n < KEYS; n++) {
    const done = drawn();
    const start = performance.now();
    const typed = withCue(text.captions.cues, shown, (cue) =>
      rewordCue(cue, `${'x'.repeat(n % 10)}${cue.text}`),
    );
    const next = { ...text, captions: { ...text.captions, cues: typed } };
    player.showWords({ [view]: [addWords(plan, source, source.frames, next).overlays.slice()] });
    pages.push(performance.now() - start);
    await done;
    redraws.push(performance.now() - start);
  }
  player.close();
  return { redraw: computeMedian(redraws), page: computeMedian(pages) };
}

/** Milliseconds of laying out so many captions on three canvases, and of measuring each of their words once. */
export async function layoutTime(
  source: Source,
  captions: number,
): Promise<{ layout: number; bare: number }> {
  const text = createText(source, source.frames, captions);
  const arts = SIZES.flatMap((size) =>
    addWords(createPlan(source, source.frames, size), source, source.frames, text).overlays.map(
      ({ art }) => art,
    ),
  );
  const fonts = await openFonts();
  await fonts.load(arts);
  const painter = new TextPainter(fonts);
  const start = performance.now();
  for (const art of arts) painter.lay(art);
  const layout = performance.now() - start;
  const ink = new OffscreenCanvas(1, 1).getContext('2d') as OffscreenCanvasRenderingContext2D;
  ink.font = '700 60px sans-serif';
  const begun = performance.now();
  for (const art of arts) for (const word of art.text.split(/\s/)) ink.measureText(word);
  return { layout, bare: performance.now() - begun };
}
