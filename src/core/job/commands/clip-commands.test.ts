import { activeClip } from '../job';
import { testJob } from '../test-job';
import { applyCommand, type Command } from './commands';

const job = testJob();
const clip = activeClip(job.edit);
const override = (rule: string, canvas: string, reason: string | null): Command => ({
  type: 'set-override',
  rule,
  canvas,
  reason,
});

describe('clip commands', () => {
  it('keep the words of a clip that goes, and forget them once it is back', () => {
    const second = { ...clip, id: 'clip-2', words: { title: 'Two', description: '', tags: [] } };
    const two = { ...job.edit, clips: [clip, second], clip: clip.id };
    const removed = applyCommand(two, { type: 'set-clips', act: 'remove', clips: [clip], clip: clip.id });
    expect(removed.gone).toMatchObject([{ id: 'clip-2', words: { title: 'Two' } }]);
    const back = applyCommand(removed, { type: 'set-clips', act: 'add', clips: two.clips, clip: clip.id });
    expect(back.gone).toEqual([]);
  });

  it('override one rule on one canvas, with one reason, until it is taken back', () => {
    const first = applyCommand(job.edit, override('tag', 'canvas-1', 'later'));
    const again = applyCommand(first, override('tag', 'canvas-1', 'not here'));
    const both = applyCommand(again, override('tag', 'canvas-2', 'nor there'));
    expect(activeClip(both).overrides).toEqual([
      { rule: 'tag', canvas: 'canvas-1', reason: 'not here' },
      { rule: 'tag', canvas: 'canvas-2', reason: 'nor there' },
    ]);
    const ended = applyCommand(both, override('tag', 'canvas-1', null));
    expect(activeClip(ended).overrides).toEqual([{ rule: 'tag', canvas: 'canvas-2', reason: 'nor there' }]);
  });
});
