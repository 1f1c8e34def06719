/** Benchmarks of several canvases, in the harness page: drags, layouts, and exports in one go. */
import { createRenderPlan, type RenderPlan } from '../src/core/render/plan';
import type { Source } from '../src/core/master/source';
import { makeCanvas } from '../src/core/layout/canvas';
import { type LayoutKind, PLAIN_LAYOUT } from '../src/core/layout/layout';
import { plainFraming } from '../src/core/framing/framing';
import { drawnPlayer } from './drawn-player';
import { canvasView, type View } from '../src/media/play/player-protocol';
import { makeExport } from '../src/media/worker/tasks';
import { createEncodeSettings } from './making';

const SIZES = [
  { width: 1080, height: 1920 },
  { width: 1080, height: 1080 },
  { width: 1080, height: 1350 },
];
/** A phone's pictures at two device pixels a layout pixel. */
const VIEWS = { rows: 380, master: { width: 732, height: 412 } };

function createPlans(source: Source, frames: number, kind: LayoutKind = 'single', x = 0.5): RenderPlan[] {
  const cut = [{ master: source.id, in: 0, out: frames }];
  const plain = plainFraming(`${source.id}-1`, 'main', 0);
  const framing = { ...plain, keyframes: plain.keyframes.map((key) => ({ ...key, focus: { x, y: 0.5 } })) };
  return SIZES.map((size, i) => {
    const canvas = {
      ...makeCanvas(null, size, source.rate, `canvas-${i}`),
      layout: { ...PLAIN_LAYOUT, kind },
    };
    return createRenderPlan(canvas, { cut, shots: [], framings: [framing], sources: [source] });
  });
}

/** Milliseconds of exporting three canvases: in one go, or one after another. */
export async function exportThree(
  source: Source,
  frames: number,
  oneGo: boolean,
  videoBits: number,
): Promise<number> {
  const outputs = createPlans(source, frames).map((plan, i) => ({
    name: `bench-${i}.mp4`,
    plan,
    making: createEncodeSettings(plan, videoBits),
  }));
  const start = performance.now();
  if (oneGo) await makeExport({ outputs }, {});
  else for (const output of outputs) await makeExport({ outputs: [output] }, {});
  return performance.now() - start;
}

/** Milliseconds of exporting the tall canvas in a layout. */
export async function exportLayout(
  source: Source,
  frames: number,
  kind: LayoutKind,
  videoBits: number,
): Promise<number> {
  const [plan] = createPlans(source, frames, kind);
  if (!plan) throw new Error('there is a tall canvas');
  const start = performance.now();
  await makeExport(
    { outputs: [{ name: 'bench-layout.mp4', plan, making: createEncodeSettings(plan, videoBits) }] },
    {},
  );
  return performance.now() - start;
}

const STEPS = 60;

/** Median milliseconds of an act that is done several times. */
async function computeMedian(act: (n: number) => Promise<number>): Promise<number> {
  const times: number[] = [];
  for (let n = 0; n < STEPS; n++) times.push(await act(n));
  return times.sort((a, b) => a - b)[STEPS / 2] ?? NaN;
}

/** Milliseconds to draw a picture of the source's size into the master's view, once, by the browser alone. */
async function plainDraw({ picture }: Source): Promise<number> {
  const noise = new OffscreenCanvas(picture.width, picture.height);
  const pen = noise.getContext('2d') as OffscreenCanvasRenderingContext2D;
  for (let x = 0; x < picture.width; x += 3) {
    pen.fillStyle = `hsl(${x % 360} 60% 50%)`;
    pen.fillRect(x, 0, 2, picture.height);
  }
  const bitmap = await createImageBitmap(noise);
  const { width, height } = VIEWS.master;
  const view = new OffscreenCanvas(width, height);
  const ink = view.getContext('2d', { alpha: false }) as OffscreenCanvasRenderingContext2D;
  ink.imageSmoothingQuality = 'high';
  return computeMedian(() => {
    const start = performance.now();
    ink.drawImage(bitmap, 0, 0, width, height);
    view.transferToImageBitmap().close();
    return Promise.resolve(performance.now() - start);
  });
}

/**
 * Median milliseconds from a step of a drag (panes worked out anew for three canvases) until it is drawn, and of one
 * plain drawing of the master's view from a bitmap.
 */
export async function dragTimes(source: Source): Promise<{ drag: number; bare: number }> {
  const { player, drawn } = drawnPlayer(source);
  const sizes: Partial<Record<View, { width: number; height: number }>> = { master: VIEWS.master };
  SIZES.forEach(({ width, height }, i) => {
    sizes[canvasView(`canvas-${i}`)] = {
      width: Math.round((VIEWS.rows * width) / height),
      height: VIEWS.rows,
    };
  });
  const byView = <T>(of: (plan: RenderPlan) => T, x: number) =>
    Object.fromEntries(
      createPlans(source, source.frames, 'single', x).map((plan, i) => [
        canvasView(`canvas-${i}`),
        [of(plan)],
      ]),
    );
  const measureMs = async (act: () => void): Promise<number> => {
    const start = performance.now();
    const done = drawn();
    act();
    await done;
    return performance.now() - start;
  };
  player.setViews(sizes);
  player.setPlans(byView((plan) => plan, 0.5));
  await measureMs(() => player.show(0, 100));
  // Whatever was still to be drawn.
  await new Promise((resolve) => setTimeout(resolve, 1000));
  const drag = await computeMedian((n) =>
    measureMs(() => player.redraw(byView(({ segments }) => [...segments], 0.3 + n / 200))),
  );
  player.close();
  return { drag, bare: await plainDraw(source) };
}
