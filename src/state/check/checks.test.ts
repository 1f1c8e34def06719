import type { JudgedEvent } from '@media/check/check-protocol';
import type { FixStep } from '@core/check/fix-all';
import { testJob } from '@core/job/test-job';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import { addJob } from '../job';
import {
  checkAllJobs,
  checkWork,
  judgeCurrent,
  safeFixesNow,
  sheetEffects,
  useChecks,
  findWorstOfJob,
} from './checks';

interface MockChecker {
  hear: (event: JudgedEvent) => void;
  fail: (detail: string) => void;
  order: { jobs: { id: string }[]; fixes?: boolean } | null;
  closed: boolean;
}
const mockCheckers: MockChecker[] = [];
jest.mock('@media/check/checker', () => ({
  Checker: jest.fn((hear: MockChecker['hear'], fail: MockChecker['fail']) => {
    const made: MockChecker = { hear, fail, order: null, closed: false };
    mockCheckers.push(made);
    return {
      check: (order: MockChecker['order']) => (made.order = order),
      close: () => (made.closed = true),
    };
  }),
}));
jest.mock('@media/store/storage', () => ({ storedFile: () => Promise.resolve(null) }));

const job = testJob();
const newest = () => mockCheckers[mockCheckers.length - 1]!;
/** Until a worker was asked. */
async function asked(count: number): Promise<MockChecker> {
  while (mockCheckers.length < count || !newest().order)
    await new Promise((resolve) => setTimeout(resolve, 1));
  return newest();
}
const answer = (cells: JudgedEvent['cells'] = []): JudgedEvent => ({
  type: 'judged',
  ask: 1,
  job: job.id,
  cells,
  fixes: [],
  done: 1,
  total: 1,
});
const FIX: FixStep = {
  ...{ clip: 'clip-1', clipName: 'Clip', canvas: 'canvas-1', label: 'Verrow Short' },
  ...{ rule: 'tag', does: 'Add #upright', command: { type: 'set-video-bits', bits: null } },
};
const NOTHING = { onProgress: () => undefined, signal: new AbortController().signal };

beforeAll(() => addJob(job));

describe('checks in a worker', () => {
  it('are remembered by job, and a worker that ended is told and replaced', () => {
    checkWork(job);
    const first = newest();
    first.hear(answer());
    expect(useChecks.getState().boards[job.id]).toEqual([]);
    expect(findWorstOfJob(useChecks.getState().boards, job.id)).toBe('pass');
    expect(findWorstOfJob({}, job.id)).toBeNull();
    first.fail('out of memory');
    expect(useChecks.getState().trouble).toMatchObject({ code: 'worker-ended' });
    expect(first.closed).toBe(true);
    checkWork(job);
    expect(newest()).not.toBe(first);
    newest().hear(answer());
    expect(useChecks.getState().trouble).toBeNull();
  });

  it('of every job ask for each, and show how far they are', async () => {
    const before = mockCheckers.length;
    await checkAllJobs();
    expect(mockCheckers).toHaveLength(before + 1);
    expect(newest().order?.jobs.map(({ id }) => id)).toEqual([job.id]);
    newest().hear({ ...answer(), done: 1, total: 2 });
    expect(useChecks.getState().progress).toEqual({ done: 1, total: 2 });
    newest().hear(answer());
    expect(useChecks.getState().progress).toBeNull();
  });

  it('for a changed sheet end when the worker fails, and when they are stopped; no worker stays', async () => {
    const before = mockCheckers.length;
    const failing = sheetEffects(SHIPPED_SHEETS, [], NOTHING);
    (await asked(before + 1)).fail('gone');
    await expect(failing).rejects.toMatchObject({ trouble: { code: 'worker-ended' } });
    expect(newest().closed).toBe(true);
    const stop = new AbortController();
    const stopped = sheetEffects(SHIPPED_SHEETS, [], { ...NOTHING, signal: stop.signal });
    await asked(before + 2);
    stop.abort();
    await expect(stopped).rejects.toMatchObject({ trouble: { code: 'cancelled' } });
    expect(newest().closed).toBe(true);
  });

  it('find the safe fixes of a job as it is, or stop looking', async () => {
    const before = mockCheckers.length;
    const looking = safeFixesNow(job, NOTHING.signal);
    expect((await asked(before + 1)).order).toMatchObject({ fixes: true, jobs: [{ id: job.id }] });
    newest().hear({ ...answer(), fixes: [FIX] });
    expect(await looking).toEqual([FIX]);
    const stop = new AbortController();
    const stopped = safeFixesNow(job, stop.signal);
    stop.abort();
    await expect(stopped).rejects.toMatchObject({ trouble: { code: 'cancelled' } });
  });

  it('for a report are asked at that moment', async () => {
    const before = mockCheckers.length;
    const report = judgeCurrent(job);
    (await asked(before + 1)).hear(answer());
    expect(await report).toMatchObject([{ title: job.title, cells: [] }]);
  });
});
