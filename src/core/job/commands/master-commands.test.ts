import { testRateChange, keep, testJob, TEST_MASTER, testShot } from '../test-job';
import { NO_REPAIRS } from '../../master/repairs';
import { activeClip } from '../job';
import { applyCommand } from './commands';

const job = testJob();

describe("a change of a master's rate", () => {
  it('keeps every place at its moment', () => {
    const before = { num: 30, den: 1 };
    const after = { num: 60, den: 1 };
    const start = [testShot('a', 0, 100), testShot('b', 100, 984)];
    const edit = applyCommand({ ...job.edit, shots: start }, keep(50, 150));
    const repairs = { ...NO_REPAIRS, rate: after };
    const now = applyCommand(edit, {
      type: 'set-repairs',
      master: TEST_MASTER,
      repairs,
      rates: testRateChange(before, after),
    });
    expect(activeClip(now).cut).toEqual([{ master: TEST_MASTER, in: 100, out: 300 }]);
    expect(now.shots.map((shot) => shot.in)).toEqual([0, 200]);
    const back = applyCommand(now, {
      type: 'set-repairs',
      master: TEST_MASTER,
      repairs: NO_REPAIRS,
      rates: testRateChange(after, before, 1968),
    });
    expect(activeClip(back).cut).toEqual(activeClip(edit).cut);
  });
});
