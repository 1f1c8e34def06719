import { activeCanvas } from '../clip';
import { activeClip, type Edit, mainMaster } from '../job';
import { choose, createFramingCommand, keep, testJob, TEST_MASTER } from '../test-job';
import { applyCommand, type Command } from './commands';

const job = testJob();

describe('canvas commands', () => {
  it('change the canvas without losing framing or cut, and end overrides of the old placement', () => {
    const start = [
      createFramingCommand({ focus: { x: 0.2, y: 0.5 }, zoom: 1.5 }),
      keep(50, 984),
      { type: 'set-override', rule: 'tag', canvas: 'canvas-1', reason: 'later' } as const,
    ].reduce<Edit>((edit, command) => applyCommand(edit, command as Command), job.edit);
    const square = applyCommand(start, choose('tesselle/square'));
    expect(activeCanvas(activeClip(square))).toMatchObject({
      width: 1080,
      height: 1080,
      rate: mainMaster(job).rate,
    });
    expect(activeClip(square).overrides).toEqual([]);
    const back = applyCommand(square, choose('verrow/short'));
    const { overrides } = activeClip(start);
    expect({ ...activeClip(back), overrides }).toEqual(activeClip(start));
  });

  it('fill every window again that was fitted, of this canvas and of those it follows', () => {
    const fitted = [
      createFramingCommand({}, { fit: true }),
      { type: 'detach', canvas: 'canvas-1', shot: { id: `${TEST_MASTER}-1`, in: 0 } } as const,
    ].reduce<Edit>((edit, command) => applyCommand(edit, command), job.edit);
    const filled = applyCommand(fitted, { type: 'fill-canvas' });
    // This canvas is framed by itself: what the others share stays fitted.
    expect(activeCanvas(activeClip(filled)).detached.map((framing) => framing.fit)).toEqual([false]);
    expect(filled.framings.map((framing) => framing.fit)).toEqual([true]);
  });
});
