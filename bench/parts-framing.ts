/** Figures of the framing bench: its proof, its drags, and exports of several canvases and panes. */
import type { Page } from 'playwright-core';
import { EASES } from '../src/core/framing/easing';
import { type Framing, plainFraming, PLAIN_VALUES } from '../src/core/framing/framing';
import { sourceOf } from '../src/core/master/source';
import { canvasOf } from '../src/core/layout/canvas';
import { coverageOf } from '../src/core/proof/coverage';
import { type LayoutKind, MAIN_TRACK } from '../src/core/layout/layout';
import { planOf } from '../src/core/render/plan';
import { testMaster, testShot } from '../src/core/job/test-job';
import { enlargedIn } from '../src/core/render/enlarged';
import { redrawnSegments, withSegments } from '../src/core/render/redrawn';
import { BITS, grainyMaster, inHarness, SECONDS } from './material';
import type { Report } from './report';

const RUNS = 101;
const SHOTS_A_MINUTE = 10;
const RATE = { num: 30, den: 1 };

/** What a drag step works out of a clip of some length, against that of one minute: only the shot at hand has changed. */
export function coverage(report: Report): void {
  const minute = dragStep(1);
  for (const minutes of [10, 60]) {
    const long = dragStep(minutes);
    report.line(`facts of a drag step in ${minutes} min`, long, 'ms', minute, long / minute, '1.1 or less');
  }
  const frame = 1000 / 60;
  report.line(
    'facts of a drag step in 60 min',
    dragStep(60),
    'ms',
    frame,
    dragStep(60) / frame,
    'well under 1',
  );
}

/** Median milliseconds to work out coverage and enlargement once one of many moving shots has changed. */
function dragStep(minutes: number): number {
  const source = sourceOf(testMaster({ rate: RATE, frames: minutes * 60 * RATE.num }));
  const count = minutes * SHOTS_A_MINUTE;
  const long = source.frames / count;
  const shots = Array.from({ length: count }, (_, i) => testShot(`s-${i}`, i * long, (i + 1) * long));
  const framingOf = (shot: (typeof shots)[number], zoom: number): Framing => ({
    ...plainFraming(shot.id, MAIN_TRACK, shot.in),
    keyframes: [shot.in, shot.out - 1].map((frame, i) => ({
      ...PLAIN_VALUES,
      frame,
      zoom: zoom + i,
      tilt: 4 * i,
      ease: i === 0 ? [...EASES['ease-in-out']] : null,
    })),
  });
  const framings = shots.map((shot) => framingOf(shot, 1));
  const canvas = canvasOf(null, { width: 1080, height: 1920 }, RATE, 'c');
  const cut = [{ master: source.id, in: 0, out: source.frames }];
  const shot = shots[3] as (typeof shots)[number];
  const whole = planOf(canvas, { cut, shots, framings, sources: [source] });
  const step = (zoom: number) => {
    const changed = [framingOf(shot, zoom)];
    const dragged = framings.map((framing) => (framing.shot === shot.id ? (changed[0] as Framing) : framing));
    const plan = withSegments(whole, redrawnSegments(whole, canvas, { shots, framings: dragged, changed }));
    coverageOf(plan);
    enlargedIn(plan, shot.id);
  };
  step(1);
  const times = Array.from({ length: RUNS }, (_, n) => {
    const start = performance.now();
    step(1 + n / 50);
    return performance.now() - start;
  });
  return times.sort((a, b) => a - b)[(RUNS - 1) / 2] ?? NaN;
}

/** A drag seen on three canvases, three canvases exported in one go, and layouts of several panes. */
export async function canvases(report: Report): Promise<void> {
  const file = grainyMaster('grainy-canvases.mp4', SECONDS, 120);
  const frames = SECONDS * RATE.num;
  const there = <T>(run: (page: Page) => Promise<T>) => inHarness(file, run);
  const { drag, bare } = await there((page) => page.evaluate(() => window.bench.dragChosen()));
  report.line('a drag step on three canvases', drag, 'ms', bare, drag / bare, '1.5 or less');

  const three = async (oneGo: boolean) => {
    const asked = [frames, oneGo, BITS] as const;
    return (await there((page) => page.evaluate((all) => window.bench.threeChosen(...all), asked))) / 1000;
  };
  const apart = await three(false);
  const together = await three(true);
  report.line('three canvases in one go', together, 's', apart, together / apart, '0.55 or less');

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
