import { readFileSync } from 'node:fs';
import path from 'node:path';
import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import { bigJob } from '../../../tests/big-job';
import { createFramingCommand, keep, testJob } from '../job/test-job';
import { applyCommand } from '../job/commands/commands';
import type { Job } from '../job/job';
import { jobFileJsonSchema, jobFileName, readJobFile, writeJobFile } from './job-file';

const job: Job = [keep(10, 900), createFramingCommand({ zoom: 1.5 })].reduce<Job>(
  (now, command) => ({ ...now, edit: applyCommand(now.edit, command) }),
  testJob(),
);
const published = path.resolve(__dirname, '../../../docs/schema/job.schema.json');

describe('a job as a file', () => {
  it('comes back as it went out, without its exports', () => {
    expect(readJobFile(writeJobFile(job))).toEqual({ ok: true, job: { ...job, exports: [] } });
    const big = bigJob();
    expect(readJobFile(writeJobFile(big))).toEqual({ ok: true, job: big });
  });

  // Judged from outside: Ajv, a validator of JSON Schema (draft 2020-12).
  it('keeps to the published schema, and what does not is not taken', () => {
    const schema = JSON.parse(readFileSync(published, 'utf8')) as object;
    expect(schema).toEqual(JSON.parse(JSON.stringify(jobFileJsonSchema())));
    const ajv = new Ajv2020({ strict: false, validateFormats: false });
    const valid = ajv.compile(schema);
    for (const original of [job, bigJob()]) {
      expect(valid(JSON.parse(writeJobFile(original)))).toBe(true);
    }
    const broken = JSON.parse(writeJobFile(job)) as { job: { masters: unknown[] } };
    broken.job.masters = [];
    expect(valid(broken)).toBe(false);
    expect(readJobFile(JSON.stringify(broken))).toMatchObject({ ok: false, problem: 'damaged' });
  });

  it('of a newer version, a damaged one and any other file are told apart', () => {
    const text = writeJobFile(job);
    const newer = text.replace(/"schemaVersion": \d+/, '"schemaVersion": 99');
    expect(readJobFile(newer)).toMatchObject({
      problem: 'newer',
      detail: expect.stringMatching(/newer Gusset/),
    });
    expect(readJobFile(text.slice(0, 500))).toMatchObject({ problem: 'not-a-job' });
    expect(readJobFile('{"format":"another"}')).toMatchObject({ problem: 'not-a-job' });
    const lost = text.replace(/"canvas": "canvas-1"/, '"canvas": "gone"');
    expect(readJobFile(lost)).toMatchObject({
      problem: 'damaged',
      detail: expect.stringMatching(/names gone/),
    });
  });

  it('never throws, whatever is in it', () => {
    const text = writeJobFile(job);
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.nat(text.length).map((end) => text.slice(0, end)),
        ),
        (any) => {
          expect(readJobFile(any)).toHaveProperty('ok');
        },
      ),
    );
  });

  it('is named after the job', () => {
    expect(jobFileName({ title: 'Kite Day at Windle Bay' }, 'json')).toBe(
      'kite-day-at-windle-bay.gusset.json',
    );
    expect(jobFileName({ title: '../..' }, 'zip')).toBe('job.gusset.zip');
  });
});
