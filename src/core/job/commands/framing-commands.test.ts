import { activeCanvas } from '../clip';
import { activeClip, type Edit } from '../job';
import { createFramingCommand, testFraming, testJob, TEST_MASTER } from '../test-job';
import { applyCommand, type Command } from './commands';

const job = testJob();
const SHOT = `${TEST_MASTER}-1`;
const at = (x: number): Command => createFramingCommand({ focus: { x, y: 0.5 }, zoom: 1.5 });
const own = (edit: Edit) => activeCanvas(activeClip(edit)).detached;

describe('framing commands', () => {
  it('reset a framing to the middle', () => {
    const set = applyCommand(job.edit, at(0.1));
    const reset = applyCommand(set, { type: 'reset-framing', shot: SHOT, track: 'main', owner: 'shared' });
    expect(reset.framings).toEqual([]);
  });

  it('give a canvas framings of its own that begin as those it followed, and take them back', () => {
    const set = applyCommand(job.edit, at(0.1));
    const alone = applyCommand(set, { type: 'detach', canvas: 'canvas-1', shot: { id: SHOT, in: 0 } });
    expect(own(alone)).toMatchObject([{ shot: SHOT, keyframes: [{ focus: { x: 0.1 } }] }]);
    const owner = { canvas: 'canvas-1' };
    const moved = applyCommand(alone, {
      type: 'set-framings',
      act: 'move',
      owner,
      framings: [testFraming({ focus: { x: 0.9, y: 0.5 } })],
    });
    expect(moved.framings).toEqual(set.framings);
    const plain = applyCommand(moved, { type: 'reset-framing', shot: SHOT, track: 'main', owner });
    expect(own(plain)).toMatchObject([{ keyframes: [{ focus: { x: 0.5 } }] }]);
    expect(own(applyCommand(plain, { type: 'attach', canvas: 'canvas-1', shot: SHOT }))).toEqual([]);
  });

  it('are for a canvas that is there', () => {
    const owner = { canvas: 'canvas-9' };
    expect(() => applyCommand(job.edit, { type: 'reset-framing', shot: SHOT, track: 'main', owner })).toThrow(
      /no canvas canvas-9/,
    );
  });
});
