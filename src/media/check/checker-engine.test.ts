import { testJob } from '@core/job/test-job';
import { SHIPPED_SHEETS } from '@core/outlets/shipped';
import type { CheckEvent } from './check-protocol';
import { CheckerEngine } from './checker-engine';

const { masters, edit } = testJob();
const sheets = [...SHIPPED_SHEETS];
const orderOf = (ask: number, ids: string[]) => ({
  ask,
  jobs: ids.map((id) => ({ id, work: { masters, edit } })),
  sheets,
  passes: [],
  sizes: [],
  trials: [],
});

describe('the checker', () => {
  it('answers for each job', async () => {
    const told: CheckEvent[] = [];
    await new CheckerEngine((event) => told.push(event)).obey(orderOf(1, ['a', 'b']));
    expect(told).toMatchObject([
      { type: 'judged', job: 'a', done: 1, total: 2, cells: [{ label: 'Verrow Short' }] },
      { type: 'judged', job: 'b', done: 2, total: 2 },
    ]);
  });

  it('finds the safe fixes where they are asked for', async () => {
    const told: CheckEvent[] = [];
    await new CheckerEngine((event) => told.push(event)).obey({ ...orderOf(1, ['a']), fixes: true });
    expect(told).toMatchObject([{ fixes: [{ rule: 'tag', label: 'Verrow Short' }] }]);
  });

  it('leaves an order for a later one', async () => {
    const told: CheckEvent[] = [];
    const engine = new CheckerEngine((event) => told.push(event));
    const first = engine.obey(orderOf(1, ['a', 'b', 'c']));
    await Promise.all([first, engine.obey(orderOf(2, ['d']))]);
    expect(told.map((event) => (event.type === 'judged' ? event.job : event.detail))).toEqual(['a', 'd']);
  });

  it('answers also where a job cannot be judged', async () => {
    const told: CheckEvent[] = [];
    const broken = { ...orderOf(1, []), jobs: [{ id: 'x', work: { masters: [], edit } }] };
    await new CheckerEngine((event) => told.push(event)).obey(broken);
    expect(told).toEqual([{ type: 'failed', ask: 1, detail: expect.stringMatching(/no master/) as string }]);
  });
});
