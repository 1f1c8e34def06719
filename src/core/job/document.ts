import { z } from 'zod';
import { fingerprintSchema } from '../master/fingerprint';
import { boundedInt, byteCount, boundedCount, frameIndex, MAX_COUNT, measure } from '../figures/bounded';
import { computeDelta, deltaSchema, withDelta } from './delta';
import { extendStep, type History, recordStep, redoStep, undoStep } from './history';
import { activeClip, type Job, mainMaster, onCanvas, onClip, findSource } from './job';
import { type Source, sourceSchema } from '../master/source';

/** A job as it is worked with: what it is, its undo history, and how often it was changed. */
export interface JobFile {
  job: Job;
  history: History;
  /** Grows by one with each entry. */
  revision: number;
}

/** Part of a job that commands do not make and undo does not change: its name, its masters, what judged it. */
export type JobMetadata = Pick<Job, 'title' | 'masters' | 'offered' | 'judged'>;

const doneSchema = z.discriminatedUnion('op', [
  /** A command, or one that continues the last step. */
  z.object({ op: z.enum(['step', 'join']), command: z.string(), delta: deltaSchema }),
  z.object({ op: z.enum(['undo', 'redo']) }),
  /** Change of what is worked on. */
  z.object({ op: z.literal('view'), clip: z.string(), canvas: z.string() }),
  z.object({ op: z.literal('facts'), delta: deltaSchema }),
]);
export type JobChange = z.infer<typeof doneSchema>;

/** Entry of a stored job's log: one change. */
export const entrySchema = z.object({
  /** The job's revision after it. */
  revision: boundedInt(1, MAX_COUNT),
  /** ISO 8601. */
  at: z.iso.datetime(),
  done: doneSchema,
});
export type Entry = z.infer<typeof entrySchema>;

/** A job after a stored change. @throws when the change does not rest on it, or is damaged. */
export function replayEntry(file: JobFile, { revision, at, done }: Entry): JobFile {
  if (revision !== file.revision + 1)
    throw new RangeError(`change ${revision} does not follow ${file.revision}`);
  const next = applyDone(file, done);
  return { ...next, revision, job: { ...next.job, changedAt: at } };
}

function applyDone(file: JobFile, done: JobChange): JobFile {
  const { job, history } = file;
  const now = { edit: job.edit, history };
  const take = (next: { edit: Job['edit']; history: History }): JobFile => ({
    ...file,
    job: { ...job, edit: next.edit },
    history: next.history,
  });
  switch (done.op) {
    case 'step':
      return take(recordStep(now, { ...done, after: withDelta(job.edit, done.delta) }));
    case 'join':
      return take(extendStep(now, { ...done, after: withDelta(job.edit, done.delta) }));
    case 'undo':
      return take(undoStep(now));
    case 'redo':
      return take(redoStep(now));
    case 'view':
      return { ...file, job: onCanvas(onClip(job, done.clip), done.canvas) };
    case 'facts':
      return { ...file, job: { ...job, ...withDelta(toFacts(job), done.delta) } };
  }
}

const toFacts = ({ title, masters, offered, judged }: Job): JobMetadata => ({
  title,
  masters,
  offered,
  ...(judged ? { judged } : {}),
});

/** Makes the change of a job's metadata; null where nothing is changed. */
export function createMetadataChange(job: Job, change: Partial<JobMetadata>): JobChange | null {
  const delta = computeDelta(toFacts(job), { ...toFacts(job), ...change });
  return delta && { op: 'facts', delta };
}

/** Head of a job for the list of jobs, kept beside it so that the list opens without opening the jobs. */
export const headSchema = z.object({
  schemaVersion: measure(),
  id: z.string(),
  title: z.string(),
  createdAt: z.iso.datetime(),
  changedAt: z.iso.datetime(),
  revision: boundedCount(),
  masters: z.array(z.object({ fingerprint: fingerprintSchema, fileName: z.string(), bytes: byteCount() })),
  clips: boundedInt(1, MAX_COUNT),
  /** The frame that stands for it. */
  poster: z.object({ source: sourceSchema, frame: frameIndex() }),
});
export type JobHead = z.infer<typeof headSchema>;

/** The frame that stands for a job: a little into what is kept, past any fade in. */
export function choosePoster(job: Pick<Job, 'masters' | 'edit'>): { source: Source; frame: number } {
  const [range] = activeClip(job.edit).cut;
  const source = findSource(job, range?.master ?? mainMaster(job).id);
  const span = range ?? { in: 0, out: source.frames };
  return { source, frame: Math.min(source.frames - 1, Math.floor(span.in + (span.out - span.in) * 0.2)) };
}

export function toHead({ job, revision }: JobFile): JobHead {
  const { schemaVersion, id, title, createdAt, changedAt, masters, edit } = job;
  return {
    ...{ schemaVersion, id, title, createdAt, changedAt, revision },
    masters: masters.map(({ fingerprint, fileName, bytes }) => ({ fingerprint, fileName, bytes })),
    clips: edit.clips.length,
    poster: choosePoster(job),
  };
}
