/** Benchmarks of several canvases, in the harness page: drags, layouts, and exports in one go. */
import { planOf, type RenderPlan } from '../src/core/render/plan';
import type { Source } from '../src/core/master/source';
import { canvasOf } from '../src/core/layout/canvas';
import { type LayoutKind, PLAIN_LAYOUT } from '../src/core/layout/layout';
import { plainFraming } from '../src/core/framing/framing';
import { canvasView, type View } from '../src/media/play/player-protocol';
import { Player } from '../src/media/play/player';
import { makeExport } from '../src/media/worker/tasks';

const SIZES = [
  { width: 1080, height: 1920 },
  { width: 1080, height: 1080 },
  { width: 1080, height: 1350 },
];
/** A phone's pictures at two device pixels a layout pixel. */
const VIEWS = { rows: 380, master: { width: 732, height: 412 } };

function plansOf(source: Source, frames: number, kind: LayoutKind = 'single', x = 0.5): RenderPlan[] {
  const cut = [{ master: source.id, in: 0, out: frames }];
  const plain = plainFraming(`${source.id}-1`, 'main', 0);
  const framing = { ...plain, keyframes: plain.keyframes.map((key) => ({ ...key, focus: { x, y: 0.5 } })) };
  return SIZES.map((size, i) => {
    const canvas = { ...canvasOf(null, size, source.rate, `canvas-${i}`), layout: { ...PLAIN_LAYOUT, kind } };
    return planOf(canvas, { cut, shots: [], framings: [framing], sources: [source] });
  });
}

/** Milliseconds of exporting three canvases: in one go, or one after another. */
export async function exportThree(
  source: Source,
  frames: number,
  oneGo: boolean,
  videoBits: number,
): Promise<number> {
  const outputs = plansOf(source, frames).map((plan, i) => ({
    name: `bench-${i}.mp4`,
    container: 'mp4' as const,
    plan,
    videoBits,
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
  const [plan] = plansOf(source, frames, kind);
  if (!plan) throw new Error('there is a tall canvas');
  const start = performance.now();
  await makeExport(
    { outputs: [{ name: 'bench-layout.mp4', container: 'mp4' as const, plan, videoBits }] },
    {},
  );
  return performance.now() - start;
}

const STEPS = 60;

/**
 * Median milliseconds from a step of a drag (plans worked out anew for three canvases) until it is drawn, and of
 * drawing the same views of the same frame with nothing changed.
 */
export async function dragTimes(source: Source): Promise<{ drag: number; bare: number }> {
  let drawn: () => void = () => undefined;
  const player = new Player([source], {
    onFrame: ({ pictures }) => {
      for (const picture of Object.values(pictures)) picture?.close();
      drawn();
    },
    onQuality: () => undefined,
    onEnded: () => undefined,
    onTrouble: (trouble) => console.error(trouble),
  });
  const sizes: Partial<Record<View, { width: number; height: number }>> = { master: VIEWS.master };
  SIZES.forEach(({ width, height }, i) => {
    sizes[canvasView(`canvas-${i}`)] = {
      width: Math.round((VIEWS.rows * width) / height),
      height: VIEWS.rows,
    };
  });
  const plans = (x: number) =>
    Object.fromEntries(
      plansOf(source, source.frames, 'single', x).map((plan, i) => [canvasView(`canvas-${i}`), [plan]]),
    );
  const timed = async (act: () => void): Promise<number> => {
    const start = performance.now();
    const done = new Promise<void>((resolve) => (drawn = resolve));
    act();
    await done;
    return performance.now() - start;
  };
  const median = async (act: (n: number) => void): Promise<number> => {
    const times: number[] = [];
    for (let n = 0; n < STEPS; n++) times.push(await timed(() => act(n)));
    return times.sort((a, b) => a - b)[STEPS / 2] ?? NaN;
  };
  player.setViews(sizes);
  player.setPlans(plans(0.5));
  await timed(() => player.show(0, 100));
  // Whatever was still to be drawn.
  await new Promise((resolve) => setTimeout(resolve, 1000));
  const bare = await median(() => player.setViews(sizes));
  const drag = await median((n) => player.setPlans(plans(0.3 + n / 200)));
  player.close();
  return { drag, bare };
}
