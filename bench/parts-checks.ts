/** Figures of the check of whole jobs. */
import { computeMedian } from '../src/core/figures/median';
import { CheckBoard } from '../src/core/check/check-board';
import { listChangedVerdicts } from '../src/core/check/verdicts';
import { reuseStructure } from '../src/core/figures/reuse-structure';
import { applyCommand } from '../src/core/job/commands/commands';
import type { Work } from '../src/core/job/job';
import { LOOKED } from '../src/core/job/test-pass';
import type { Sheets } from '../src/core/outlets/rule-sheet';
import { bigJob } from '../tests/big-job';
import type { Report } from './report';

const ALSO = [
  'tesselle/square',
  'tesselle/portrait',
  'tesselle/wide',
  'tesselle/vanishing',
  'commonfold/wide',
];
const FRAME = 1000 / 60;
const JOBS = 30;
const ROUNDS = 9;

/** The job of the store's benchmark, its clips a twelfth of the master each, its canvases for six placements. */
function work(): Work {
  const { masters, edit } = bigJob();
  const length = (masters[0]?.frames ?? 0) / edit.clips.length;
  const clips = edit.clips.map((clip, n) => ({
    ...clip,
    cut: clip.cut.map((range) => ({ ...range, in: n * length, out: (n + 1) * length })),
    canvases: clip.canvases.map((canvas) => ({ ...canvas, also: ALSO })),
  }));
  // As it comes over to a worker: nothing that other jobs have worked out already.
  return structuredClone({ masters, edit: { ...edit, clips } });
}

function measureMs(act: () => void): number {
  const start = performance.now();
  act();
  return performance.now() - start;
}

/** Another framing of one of the first clip's shots. */
function moveFraming(before: Work, n: number): Work {
  const framing = before.edit.framings[n % 12];
  if (!framing) return before;
  const keyframes = framing.keyframes.map((key) => ({ ...key, focus: { x: 0.2 + n / 50, y: 0.5 } }));
  const framings = [{ ...framing, keyframes }];
  const edit = applyCommand(before.edit, { type: 'set-framings', act: 'move', owner: 'shared', framings });
  return { ...before, edit };
}

export function checks(report: Report): void {
  const wholes: number[] = [];
  const ones: number[] = [];
  const handed: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const board = new CheckBoard();
    let now = work();
    wholes.push(measureMs(() => board.check(now, LOOKED)));
    for (let n = 1; n <= 3; n++) {
      const next = moveFraming(now, round * 3 + n);
      let over = next;
      handed.push(measureMs(() => (over = structuredClone(next))));
      ones.push(
        measureMs(() => {
          now = reuseStructure(now, over);
          board.check(now, LOOKED);
        }),
      );
    }
  }
  const [whole, one, hand] = [computeMedian(wholes), computeMedian(ones), computeMedian(handed)];
  report.line('checks from nothing', whole, 'ms', FRAME, whole / FRAME, 'in a worker');
  report.line('checks after one framing', one, 'ms', whole, one / whole, '0.05 or less');
  report.line('checks, main thread', hand, 'ms', FRAME, hand / FRAME, '1 or less');
  sheetChange(report);
}

function sheetChange(report: Report): void {
  const shorter: Sheets = LOOKED.sheets.map((sheet) => ({
    ...sheet,
    placements: sheet.placements.map((placement) => ({
      ...placement,
      length: { ...placement.length, most: placement.length.most / 2 },
    })),
  }));
  const jobs = Array.from({ length: JOBS }, (): Work => {
    const made = work();
    return { ...made, edit: { ...made.edit, clips: made.edit.clips.slice(0, 1) } };
  });
  const judge = (job: Work) =>
    listChangedVerdicts(
      new CheckBoard().check(job, LOOKED),
      new CheckBoard().check(job, { ...LOOKED, sheets: shorter }),
    );
  const one = measureMs(() => judge(jobs[0] as Work));
  const all = measureMs(() => jobs.forEach(judge));
  report.line('a changed sheet over 30 jobs', all, 'ms', one, all / one, `${JOBS} or less`);
}
