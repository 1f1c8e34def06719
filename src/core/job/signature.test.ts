import { plainFraming } from '../framing/framing';
import { applyCommand, type Command } from './commands/commands';
import { signatureOf } from './signature';
import { framed, keep, testJob } from './test-job';

const job = testJob();
const framing = (x: number): Command => framed({ focus: { x, y: 0.5 }, zoom: 1.5 });

describe('an export', () => {
  it('is stale once what it shows changes, and not when only words do', () => {
    const before = signatureOf(job.edit);
    expect(signatureOf(applyCommand(job.edit, framing(0.3)))).not.toBe(before);
    expect(signatureOf(applyCommand(job.edit, keep(5, 50)))).not.toBe(before);
    const elsewhere = { ...framing(0.3), framings: [{ ...plainFraming('another', 'main', 0), fit: true }] };
    expect(signatureOf(applyCommand(job.edit, elsewhere as Command))).toBe(before);
    const words = { title: 'x', description: '', tags: [] };
    expect(signatureOf(applyCommand(job.edit, { type: 'set-words', words }))).toBe(before);
  });
});
