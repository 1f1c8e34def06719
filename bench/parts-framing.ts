/** Figures of the framing bench: its proof, its drags, and exports of several canvases and panes. */
import type { Page } from 'playwright-core';
import { EASES } from '../src/core/framing/easing';
import type { Framing } from '../src/core/framing/framing';
import { sourceOf } from '../src/core/master/source';
import { canvasOf } from '../src/core/layout/canvas';
import { coverageOf } from '../src/core/proof/coverage';
import { type Layout, type LayoutKind, PLAIN_LAYOUT } from '../src/core/layout/layout';
import { planOf, type RenderPlan } from '../src/core/render/plan';
import { testMaster } from '../src/core/job/test-job';
import { random } from '../tests/film-maker';
import { BITS, grainyMaster, inHarness, SECONDS } from './material';
import type { Report } from './report';

const RUNS = 15;
const COVERED_KEYFRAMES = 40;
const COVERED_FRAMES = 1800;
const RATE = { num: 30, den: 1 };

/** Coverage of a minute with many keyframes, against the time that a display at 60 Hz gives a frame. */
export function coverage(report: Report): void {
  const plan = wildPlan();
  const times = Array.from({ length: RUNS }, () => {
    const start = performance.now();
    coverageOf(plan);
    return performance.now() - start;
  });
  const median = times.sort((a, b) => a - b)[(RUNS - 1) / 2] ?? NaN;
  const frame = 1000 / 60;
  report.line('coverage of 60 s, 40 keyframes, 3 panes', median, 'ms', frame, median / frame, 'well under 1');
}

/** Three panes that move, zoom and tilt all the time. */
function wildPlan(): RenderPlan {
  const pick = random(7);
  const source = sourceOf(testMaster({ rate: RATE, frames: COVERED_FRAMES }));
  const keyframes = Array.from({ length: COVERED_KEYFRAMES }, (_, i) => ({
    frame: Math.round((i * (COVERED_FRAMES - 1)) / (COVERED_KEYFRAMES - 1)),
    focus: { x: pick(), y: pick() },
    seat: { x: 0.5, y: 0.5 },
    zoom: 1 + pick(),
    tilt: (pick() - 0.5) * 20,
    ease: EASES['ease-in-out'],
  }));
  const framings = ['main', 'second', 'third'].map((track): Framing => ({
    shot: `${source.id}-1`,
    track,
    turn: 0,
    fit: false,
    keyframes: keyframes.map((key) => ({ ...key, ease: key.ease && [...key.ease] })),
  }));
  const layout: Layout = { ...PLAIN_LAYOUT, kind: 'stacked', stacked: { panes: 3, dividers: [0.3, 0.6] } };
  const canvas = { ...canvasOf(null, { width: 1080, height: 1920 }, RATE, 'c'), layout };
  const cut = [{ master: source.id, in: 0, out: COVERED_FRAMES }];
  return planOf(canvas, { cut, shots: [], framings, sources: [source] });
}

/** A drag seen on three canvases, three canvases exported in one go, and layouts of several panes. */
export async function canvases(report: Report): Promise<void> {
  const file = grainyMaster('grainy-canvases.mp4', SECONDS, 120);
  const frames = SECONDS * RATE.num;
  const there = <T>(run: (page: Page) => Promise<T>) => inHarness(file, run);
  const { drag, bare } = await there((page) => page.evaluate(() => window.bench.dragChosen()));
  report.line('a drag step on three canvases', drag, 'ms', bare, drag / bare, '2 or less');

  const three = async (oneGo: boolean) => {
    const asked = [frames, oneGo, BITS] as const;
    return (await there((page) => page.evaluate((all) => window.bench.threeChosen(...all), asked))) / 1000;
  };
  const apart = await three(false);
  const together = await three(true);
  report.line('three canvases in one go', together, 's', apart, together / apart, '0.75 or less');

  const layout = async (kind: LayoutKind) => {
    const asked = [frames, kind, BITS] as const;
    return (await there((page) => page.evaluate((all) => window.bench.layoutChosen(...all), asked))) / 1000;
  };
  const single = await layout('single');
  for (const kind of ['stacked', 'backdrop'] as const) {
    const seconds = await layout(kind);
    report.line(`export of 20 s, ${kind}`, seconds, 's', single, seconds / single);
  }
}
