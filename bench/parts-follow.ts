/** Figures of following: how well the path serves, how long it takes to find, and what looking for subjects costs. */
import { highsSolver } from '../tests/lp-solvers';
import { followTruths, servedBy, simpleWays, TALL, trackOfTruth } from '../tests/follow-truths';
import { followShot, type FollowTask } from '../src/core/follow/solve';
import { DEFAULT_FOLLOW_OPTIONS } from '../src/core/framing/following';
import { computeWindow } from '../src/core/framing/window';
import { peakMemory } from './browser-memory';
import { grainyMaster, inHarness, loopedMaster, SECONDS } from './material';
import type { Report } from './report';

const PANES = [
  { canvas: 'tall', ...TALL, pixels: 1080 },
  { canvas: 'square', width: 9 / 16, height: 1, pixels: 1080 },
  { canvas: 'portrait', width: (4 / 5) * (9 / 16), height: 1, pixels: 1080 },
];
const createTask = (more: Pick<FollowTask, 'subjects' | 'in' | 'out' | 'rate'>): FollowTask => ({
  ...{ panes: PANES, pins: [], wishes: DEFAULT_FOLLOW_OPTIONS, zoom: 1, tilt: 0, maxZoom: 2, ...more },
});

/** The way that following goes, beside simpler ones, on subjects of which the truth is known. */
export async function follow(report: Report): Promise<void> {
  const solve = await highsSolver();
  const sums = new Map<string, { inside: number; least: number; jerk: number }>();
  const add = (name: string, { inside, jerk }: { inside: number; jerk: number }) => {
    const sum = sums.get(name) ?? { inside: 0, least: 1, jerk: 0 };
    sums.set(name, {
      inside: sum.inside + inside,
      least: Math.min(sum.least, inside),
      jerk: sum.jerk + jerk,
    });
  };
  const truths = followTruths();
  for (const [i, truth] of truths.entries()) {
    const track = trackOfTruth(truth, 0.04, i + 1);
    for (const [name, way] of Object.entries(simpleWays(track, truth, TALL.width)))
      add(name, servedBy(truth, TALL.width, way));
    const task = createTask({ subjects: [track], in: 0, out: truth.frames, rate: truth.rate });
    const { keyframes } = followShot(task, solve);
    const middle = (frame: number) => {
      const { x, width } = computeWindow({ keyframes, turn: 0 }, frame, { pane: 9 / 16, live: 16 / 9 });
      return x + width / 2;
    };
    add('following', servedBy(truth, TALL.width, middle));
  }
  const average = sums.get('moving average, 2 s')?.jerk ?? NaN;
  const ours = sums.get('following') ?? { inside: NaN, least: NaN, jerk: NaN };
  report.line('jerk of the followed path', ours.jerk, '', average, ours.jerk / average, '0.25 or less');
  report.line('least share of frames with the subject inside', ours.least, '', 1, ours.least, '0.98 or more');
  report.ways(
    `Ways to follow, over ${truths.length} made-up shots: share of frames with the whole subject inside a tall window, and how much the window jerks.`,
    ['mean share', 'least share', 'jerk'],
    [...sums].map(([name, { inside, least, jerk }]) => [name, inside / truths.length, least, jerk] as const),
  );
  pathTime(report, solve);
  await evidenceTime(report);
}

function pathTime(report: Report, solve: Parameters<typeof followShot>[1]): void {
  const shots = followTruths().filter(({ name }) => !name.startsWith('stands') && !name.startsWith('sways'));
  const tasks = Array.from({ length: 10 }, (_, i) => {
    const truth = shots[i % shots.length] as (typeof shots)[number];
    const track = trackOfTruth(truth, 0.04, i + 1);
    return createTask({ subjects: [track], in: 0, out: 6 * truth.rate, rate: truth.rate });
  });
  const start = performance.now();
  for (const task of tasks) followShot(task, solve);
  const seconds = (performance.now() - start) / 1000;
  report.line('paths of 60 s for three canvases', seconds, 's', 1, seconds, '1 or less');
}

async function evidenceTime(report: Report): Promise<void> {
  const file = grainyMaster('follow.mp4', SECONDS, 120);
  const { milliseconds, seconds } = await inHarness(file, (page) =>
    page.evaluate(() => window.bench.followChosen()),
  );
  const took = milliseconds / 1000;
  report.line('evidence of a 1080p30 master', took, 's', seconds, took / seconds, '1.0 or less');
}

/** Measures whether looking for subjects takes more memory in a long master than in a short one. */
export async function followMemory(report: Report): Promise<void> {
  const peak = (seconds: number) =>
    inHarness(loopedMaster(`follow-${seconds}.mp4`, seconds), (page) =>
      peakMemory('chromium', () => page.evaluate(() => window.bench.followChosen())),
    );
  const short = await peak(120);
  const long = await peak(600);
  report.line('peak memory of evidence over 10 min', long, 'MB', short, long / short, '1.2 or less');
}
