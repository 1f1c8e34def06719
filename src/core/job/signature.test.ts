import { plainFraming } from '../framing/framing';
import { activeClip, type Edit } from './job';
import { applyCommand, type Command } from './commands/commands';
import { computeSignature } from './signature';
import { createFramingCommand, keep, testJob } from './test-job';

const job = testJob();
const framing = (x: number): Command => createFramingCommand({ focus: { x, y: 0.5 }, zoom: 1.5 });

describe('an export', () => {
  it('is stale once what it shows changes, and not when only words do', () => {
    const before = computeSignature(job.edit);
    expect(computeSignature(applyCommand(job.edit, framing(0.3)))).not.toBe(before);
    expect(computeSignature(applyCommand(job.edit, keep(5, 50)))).not.toBe(before);
    const elsewhere = { ...framing(0.3), framings: [{ ...plainFraming('another', 'main', 0), fit: true }] };
    expect(computeSignature(applyCommand(job.edit, elsewhere as Command))).toBe(before);
    const words = { title: 'x', description: '', tags: [] };
    expect(computeSignature(applyCommand(job.edit, { type: 'set-words', words }))).toBe(before);
  });

  it('is told from others whatever was asked before: what is remembered is what would be reckoned', () => {
    const clip = activeClip(job.edit);
    const other = {
      ...clip,
      id: 'other',
      canvases: clip.canvases.map((canvas) => ({ ...canvas, width: 1080 })),
    };
    const edits = [
      job.edit,
      applyCommand(job.edit, framing(0.3)),
      applyCommand(job.edit, keep(5, 50)),
      applyCommand(job.edit, { type: 'set-words', words: { title: 'x', description: '', tags: [] } }),
      { ...job.edit, clips: [clip, other], clip: 'other' },
    ];
    const fresh = (edit: Edit) => computeSignature(structuredClone(edit));
    for (const edit of [...edits, ...edits.toReversed(), ...edits]) {
      expect(computeSignature(edit)).toBe(fresh(edit));
      expect(computeSignature(edit, 'otherwise')).toBe(computeSignature(structuredClone(edit), 'otherwise'));
    }
  });
});
