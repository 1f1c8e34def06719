/** Figures of the framing bench: its proof, its drags, and exports of several canvases and panes. */
import type { Page } from 'playwright-core';
import { EASES } from '../src/core/framing/easing';
import { type Framing, plainFraming, PLAIN_VALUES } from '../src/core/framing/framing';
import { toSource } from '../src/core/master/source';
import { makeCanvas } from '../src/core/layout/canvas';
import { computeCoverage } from '../src/core/proof/coverage';
import { type LayoutKind } from '../src/core/layout/layout';
import { MAIN_TRACK } from '../src/core/layout/pane';
import { createRenderPlan } from '../src/core/render/plan';
import { testMaster, testShot } from '../src/core/job/test-job';
import { findEnlargement } from '../src/core/render/enlarged';
import { redrawSegments, withSegments } from '../src/core/render/redraw-segments';
import { BITS, grainyMaster, inHarness, SECONDS } from './material';
import type { Report } from './report';

const RUNS = 101;
const SHOTS_A_MINUTE = 10;
const RATE = { num: 30, den: 1 };

/**
 * Measures what a drag step recomputes in a clip of some length, against one of a minute: only the shot at
 * hand has changed.
 */
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
  for (const [what, keyframes] of [
    ['still', 1],
    ['followed', FOLLOWED],
  ] as const) {
    const step = dragStep(10, (zoom) => zoom, keyframes);
    report.line(`facts of a drag step on a ${what} shot`, step, 'ms', frame, step / frame, 'well under 1');
  }
}

/** Keyframes of a shot that is followed, about the most that a path comes to. */
const FOLLOWED = 13;

/**
 * Median milliseconds to work out coverage and enlargement once one of many shots has changed.
 * @param last the zoom at a shot's end, from that at its beginning. @param keyframes of each shot.
 */
function dragStep(minutes: number, last = (zoom: number) => zoom + 1, keyframes = 2): number {
  const source = toSource(testMaster({ rate: RATE, frames: minutes * 60 * RATE.num }));
  const count = minutes * SHOTS_A_MINUTE;
  const long = source.frames / count;
  const shots = Array.from({ length: count }, (_, i) => testShot(`s-${i}`, i * long, (i + 1) * long));
  const createFraming = (shot: (typeof shots)[number], zoom: number): Framing => ({
    ...plainFraming(shot.id, MAIN_TRACK, shot.in),
    keyframes: Array.from({ length: keyframes }, (_, i) => {
      const way = keyframes > 1 ? i / (keyframes - 1) : 0;
      return {
        ...PLAIN_VALUES,
        focus: { x: 0.5 + 0.3 * way, y: 0.5 },
        frame: shot.in + Math.round((shot.out - 1 - shot.in) * way),
        zoom: zoom + (last(zoom) - zoom) * way,
        tilt: keyframes === 2 ? 4 * way : 0,
        ease: i < keyframes - 1 ? [...EASES['ease-in-out']] : null,
      };
    }),
  });
  const framings = shots.map((shot) => createFraming(shot, 1));
  const canvas = makeCanvas(null, { width: 1080, height: 1920 }, RATE, 'c');
  const cut = [{ master: source.id, in: 0, out: source.frames }];
  const shot = shots[3] as (typeof shots)[number];
  const whole = createRenderPlan(canvas, { cut, shots, framings, sources: [source] });
  const step = (zoom: number) => {
    const changed = [createFraming(shot, zoom)];
    const dragged = framings.map((framing) => (framing.shot === shot.id ? (changed[0] as Framing) : framing));
    const plan = withSegments(whole, redrawSegments(whole, canvas, { shots, framings: dragged, changed }));
    computeCoverage(plan);
    findEnlargement(plan, shot.id);
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
