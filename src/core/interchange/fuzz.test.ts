import { SEED, seeded, soakFigure, trials } from '../../../tests/soak';
import { bigJob } from '../../../tests/big-job';
import { createFramingCommand, keep, testJob } from '../job/test-job';
import { EMPTY_HISTORY } from '../job/history';
import { readOldJob, readStoredJob, storedJob } from '../job/stored-job';
import { presetsFile } from '../layout/preset';
import { applyCommand } from '../job/commands/commands';
import type { Job } from '../job/job';
import { readEdl } from './edl';
import { readJobFile, writeJobFile } from './job-file';
import { readOtio, writeOtio } from './otio';

const TRIALS = trials(1500, 100_000);
const job = [keep(10, 900), createFramingCommand({ zoom: 1.5 })].reduce<Job>(
  (now, command) => ({ ...now, edit: applyCommand(now.edit, command) }),
  testJob(),
);
const stored = storedJob({ job, history: EMPTY_HISTORY, revision: 0 });
const rate = { num: 25, den: 1 };

/** Every reader of text from elsewhere, with a text that it takes. */
const READERS: [name: string, text: string, read: (text: string) => unknown][] = [
  ['a job as a file', writeJobFile(job), readJobFile],
  ['a stored job', stored.document, (document) => readStoredJob({ ...stored, document })],
  ['a stored job of before', JSON.stringify({ job: { ...job, schemaVersion: 3 }, history: {} }), readOldJob],
  ['presets', '{"format":"gusset-presets","schemaVersion":1,"presets":[]}', presetsFile.read],
  [
    'an OpenTimelineIO list',
    writeOtio('x', [{ master: 'm', in: 3, out: 90 }], [{ id: 'm', fileName: 'm.mp4', rate, frames: 99 }]),
    (text) => readOtio(text, rate),
  ],
  [
    'a CMX 3600 list',
    '001  REEL     V     C        00:00:00:00 00:00:02:00 00:00:00:00 00:00:02:00\n',
    (text) => readEdl(text, rate),
  ],
];

/** A text with some of its characters changed, taken out, put in, doubled or cut off. */
function spoiled(text: string, random: () => number): string {
  const pick = (most: number) => Math.floor(random() * most);
  let out = text;
  for (let n = 1 + pick(4); n > 0; n--) {
    const offset = pick(out.length + 1);
    const end = Math.min(out.length, offset + pick(40));
    const marks = [
      '',
      '"',
      '{',
      ']',
      ',',
      '-1',
      '1e999',
      'null',
      '\u0000',
      '𝄞',
      out.slice(offset, end),
      '[['.repeat(200),
    ];
    out =
      random() < 0.1
        ? out.slice(0, offset)
        : out.slice(0, offset) + (marks[pick(marks.length)] ?? '') + out.slice(end);
  }
  return out;
}

describe('text from elsewhere', () => {
  it.each(READERS)('is read or refused, and never thrown at: %s', (name, text, read) => {
    const random = seeded(SEED);
    for (let n = 0; n < TRIALS / READERS.length; n++) {
      const damaged = spoiled(text, random);
      try {
        read(damaged);
      } catch (error) {
        throw new Error(`thrown at: ${damaged.slice(0, 400)}`, { cause: error });
      }
    }
    soakFigure(
      `spoiled text, ${name}`,
      `${Math.floor(TRIALS / READERS.length)} texts: read or refused, none thrown at`,
    );
  });

  it('takes a job as large as they come', () => {
    expect(readJobFile(writeJobFile(bigJob())).ok).toBe(true);
  });
});
