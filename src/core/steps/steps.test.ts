import { LOOKED } from '../job/test-pass';
import { checkJob } from '../check/check';
import { applyCommand, type Command } from '../job/commands/commands';
import { computeSignature } from '../job/signature';
import type { Job } from '../job/job';
import type { ExportRecord, PostRecord } from '../job/records';
import { keep, testJob } from '../job/test-job';
import type { Problem } from '../diagnosis/diagnosis';
import { findNextStep, listSteps } from './steps';

const change = (job: Job, command: Command): Job => ({
  ...job,
  edit: applyCommand(job.edit, command),
});
const next = (job: Job) => findNextStep(job, checkJob(job, LOOKED), LOOKED.sheets).label;
const step = (job: Job, name: string) =>
  listSteps({ ...LOOKED, job, findings: checkJob(job, LOOKED), problems: [] }).find(
    (step) => step.name === name,
  );
const exported = (job: Job, state: ExportRecord['state'] = 'done'): Job => ({
  ...job,
  exports: [
    {
      id: 'e',
      clip: 'clip-1',
      canvas: 'canvas-1',
      dye: 0,
      placement: 'verrow/short',
      width: 1080,
      height: 1920,
      fileName: 'x.mp4',
      format: 'mp4-avc',
      state,
      error: null,
      bytes: 1,
      startedAt: '2026-11-01T10:00:00.000Z',
      signature: computeSignature(job.edit),
      videoBits: 1,
      tookSeconds: 1,
      proof: { facts: [], framesSearched: 1, borders: { left: 0, top: 0, right: 0, bottom: 0 }, pass: true },
    },
  ],
});
const posted = (job: Job, state: PostRecord['state']): Job => ({
  ...job,
  posts: [
    {
      id: 'p',
      clip: 'clip-1',
      exportId: 'e',
      outlet: 'verrow',
      title: 't',
      audience: 'private',
      at: '2026-11-01T10:00:00.000Z',
      state,
      reasons: [],
      page: '/',
    },
  ],
});

it('leads from fix to export to post', () => {
  const job = testJob();
  expect(next(testJob({ frames: 3000 }))).toBe('Trim to 60 s');
  expect(next(job)).toBe('Export the clip');
  expect(next(exported(job))).toBe('Post to Verrow');
  expect(next(posted(exported(job), 'accepted'))).toBe('See the posts');
  expect(next(testJob({ rate: { num: 120, den: 1 } }))).toBe('See what keeps the export back');
});

it('asks for a new export once the clip has changed', () => {
  const job = change(exported(testJob()), keep(30, 984));
  expect(next(job)).toBe('Export the clip');
  expect(step(job, 'export')).toMatchObject({
    standing: 'open',
    summary: '1 file, none of the clip as it is now',
  });
});

it('says where each step stands', () => {
  const job = testJob();
  expect(step(job, 'canvas')?.summary).toBe('Verrow Short, 1080×1920, 9:16');
  expect(step(job, 'cut')).toMatchObject({ summary: '0:41.0 kept of 0:41.0', standing: 'note' });
  const carded = applyCommand(job.edit, { type: 'set-card', card: { seconds: 2, colour: '#1F2B33' } });
  expect(step({ ...job, edit: carded }, 'cut')?.summary).toBe(
    '0:41.0 kept of 0:41.0, and 0:02.0 of end card',
  );
  expect(step(job, 'frame')?.summary).toBe('0 of 1 shot framed');
  const check = step(job, 'check');
  expect(check?.standing).toBe('stop');
  expect(check?.summary).toMatch(/^2 stops, 4 notes, \d+ passed$/);
  expect(step(exported(job, 'running'), 'export')?.summary).toBe('Under way');
  expect(step(exported(job, 'failed'), 'export')?.standing).toBe('warn');
  expect(step(exported(job), 'export')?.standing).toBe('pass');
  expect(step(posted(job, 'refused'), 'post')?.standing).toBe('stop');
  expect(step(posted(job, 'accepted'), 'post')).toMatchObject({ standing: 'pass', summary: '1 post is up' });
});

it('says when there is something to look at in a master', () => {
  const job = testJob();
  const problem = {
    code: 'bars',
    weight: 'warn',
    values: { live: '', whole: '', sure: 90 },
    offers: [],
    repaired: false,
  } as const;
  const master = (problems: Problem[]) =>
    listSteps({ ...LOOKED, job, findings: checkJob(job, LOOKED), problems })[0];
  expect(master([])).toMatchObject({ standing: 'pass', summary: '1920×1080, 23.976 fps' });
  expect(master([{ ...problem, offers: [] }])).toMatchObject({
    standing: 'warn',
    summary: '1920×1080, 23.976 fps, 1 thing to look at',
  });
});
