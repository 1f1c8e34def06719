import { withBoundary } from '../../cut/shots';
import { createFramingCommand, testJob, TEST_MASTER, testShot } from '../test-job';
import { applyCommand } from './commands';

const job = testJob();
const SHOT = `${TEST_MASTER}-1`;

describe('shot commands', () => {
  it('keep the framing of a shot that is divided, and end the ticks of shots that go', () => {
    const framed1 = applyCommand(job.edit, createFramingCommand({ focus: { x: 0.2, y: 0.5 }, zoom: 1.5 }));
    const ticked = applyCommand(framed1, { type: 'tick-shot', shot: SHOT, signature: 'seen' });
    const divided = applyCommand(ticked, {
      type: 'set-shots',
      act: 'add',
      master: TEST_MASTER,
      frames: 984,
      old: [testShot(SHOT, 0, 984)],
      boundaries: withBoundary([{ frame: 0, start: null }], 300, 'new'),
    });
    expect(divided.shots.map((shot) => [shot.in, shot.out])).toEqual([
      [0, 300],
      [300, 984],
    ]);
    for (const shot of divided.shots) {
      const own = divided.framings.find((framing) => framing.shot === shot.id);
      expect(own?.keyframes[0]?.focus.x).toBe(0.2);
    }
    const merged = applyCommand(divided, {
      type: 'set-shots',
      act: 'list',
      master: TEST_MASTER,
      old: divided.shots,
      boundaries: [{ frame: 0, start: null }],
      frames: 984,
    });
    expect(Object.keys(merged.ticks)).toEqual([merged.shots[0]!.id]);
  });
});
