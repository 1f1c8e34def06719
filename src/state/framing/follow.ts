import { create } from 'zustand';
import type { Shot } from '@core/cut/shot';
import { type Evidence, createEvidence } from '@core/follow/evidence';
import { isDivided, type Subject } from '@core/follow/subjects';
import type { FollowOptions } from '@core/framing/following';
import type { Framing } from '@core/framing/framing';
import {
  toFileBox,
  fileRange,
  listFollowedSubjects,
  followTask,
  type FramingToFollow,
  applyFollowing,
  framingToFollow,
  listShotSubjects,
} from '@core/job/follow-shot';
import type { Job } from '@core/job/job';
import { toSource } from '@core/master/source';
import type { PictureRect } from '@core/picture/size';
import { type Trouble, toTrouble, TroubleError } from '@core/trouble/trouble';
import { findPaths, followDrawnBox } from '@media/worker/tasks';
import { keepDrawn, loadEvidence, gatherShotEvidence, useEvidence } from './evidence';
import { dispatch, useJobs } from '../job';
import { TaskQueue } from '../task';

/** Following under way. */
interface FollowRun {
  stage: 'look' | 'box' | 'path';
  done: number;
  total: number;
  /** Seconds; null while there is nothing to reckon from. */
  left: number | null;
}

/** Why a shot is not followed, or what is to be said of how it is. */
export type FollowNote = 'nothing' | 'alike' | 'no-window' | 'no-path';

interface FollowState {
  /** By job. */
  runs: Record<string, FollowRun>;
  troubles: Record<string, Trouble>;
  /** By {@link noteKey}, of the last time that the shot was tried. */
  notes: Record<string, FollowNote>;
}

export const useFollow = create<FollowState>(() => ({ runs: {}, troubles: {}, notes: {} }));

/** Before so many seconds the time left is no more than a guess. */
const SETTLES = 3;

/** Two jobs of one master have shots of the same names. */
export const noteKey = (jobId: string, shot: Pick<Shot, 'id'>): string => `${jobId} ${shot.id}`;

const queue = new TaskQueue();

export const stopFollowing = (jobId: string): void => queue.cancel(jobId);

/** Stops it, and resolves once nothing more is found. */
export const endFollowing = (jobId: string): Promise<void> => queue.cancelled(jobId);

const jobNow = (id: string): Job => {
  const job = useJobs.getState().files[id]?.job;
  if (!job) throw new TroubleError('cancelled');
  return job;
};

/** Runs something as the job's one task of following, with its progress in the store; while one runs nothing else does. */
async function follow(
  id: string,
  run: (
    tell: (stage: FollowRun['stage'], done: number, total: number) => void,
    signal: AbortSignal,
  ) => Promise<void>,
): Promise<void> {
  if (useFollow.getState().runs[id]) return;
  let began = performance.now();
  let stage: FollowRun['stage'] | null = null;
  const tell = (next: FollowRun['stage'], done: number, total: number) => {
    if (next !== stage) began = performance.now();
    stage = next;
    const seconds = (performance.now() - began) / 1000;
    const left = done > 0 && seconds > SETTLES ? (seconds / done) * (total - done) : null;
    useFollow.setState(({ runs }) => ({ runs: { ...runs, [id]: { stage: next, done, total, left } } }));
  };
  const { [id]: _old, ...troubles } = useFollow.getState().troubles;
  useFollow.setState({ troubles });
  tell('look', 0, 1);
  const outcome = await queue.add(id, {
    run: (signal) => run(tell, signal),
    // What was found on the way is kept: it costs nothing when it is asked for again.
    clean: () => Promise.resolve(),
    trouble: (error) => toTrouble(error, 'worker-ended', { detail: String(error) }),
  });
  useFollow.setState(({ runs, troubles }) => {
    const { [id]: _run, ...others } = runs;
    return {
      runs: others,
      troubles: outcome.state === 'failed' ? { ...troubles, [id]: outcome.trouble } : troubles,
    };
  });
}

/** Whom a framing is to follow. */
type ChooseSubjects = (subjects: readonly Subject[], framing: Framing) => readonly Subject[];

/** Chooses the subjects that it follows already, else the one that the shot is most likely about. */
const best: ChooseSubjects = (subjects, { following }) => {
  const known = following ? listFollowedSubjects(subjects, following) : [];
  return known.length > 0 ? known : subjects.slice(0, 1);
};

/**
 * Follows what shots are about: looks at what was not looked at yet, and finds the paths. One step for undo.
 * @param framings all of one owner.
 * @param choose whom; by itself those that are followed already, else the surest.
 */
export function followFramings(
  id: string,
  framings: readonly FramingToFollow[],
  wishes: FollowOptions,
  choose: ChooseSubjects = best,
): Promise<void> {
  return follow(id, async (tell, signal) => {
    const job = jobNow(id);
    const masters = job.masters.filter((master) => framings.some(({ shot }) => shot.master === master.id));
    for (const master of masters) {
      const ranges = framings
        .filter(({ shot }) => shot.master === master.id)
        .map(({ shot }) => fileRange(job, shot));
      await gatherShotEvidence(master, ranges, (done, total) => tell('look', done, total), signal);
    }
    await solve(id, framings, wishes, choose, (done, total) => tell('path', done, total), signal);
  });
}

/** Follows a box that was drawn on a frame of a shot. @param frame at the source's rate. */
export function followDrawn(
  id: string,
  to: FramingToFollow,
  { frame, box }: { frame: number; box: PictureRect },
  wishes: FollowOptions,
): Promise<void> {
  return follow(id, async (tell, signal) => {
    const job = jobNow(id);
    const master = findMaster(job, to.shot);
    const range = fileRange(job, to.shot);
    const share = (frame - to.shot.in) / Math.max(1, to.shot.out - to.shot.in);
    const drawnAt = Math.min(range.out - 1, range.in + Math.round(share * (range.out - range.in)));
    await loadEvidence(master);
    const track = await followDrawnBox(
      { source: toSource(master), ...range, frame: drawnAt, box: toFileBox(job, to.shot, box) },
      { signal, onProgress: ({ done, total }) => tell('box', done, total) },
    );
    await keepDrawn(master, track, range);
    const isDrawn: ChooseSubjects = (subjects) =>
      subjects.filter((subject) => sameTrack(subject, track.points));
    await solve(id, [to], wishes, isDrawn, (done, total) => tell('path', done, total), signal);
  });
}

const sameTrack = ({ track }: Subject, points: readonly { frame: number; box: PictureRect }[]): boolean =>
  track.kind === 'drawn' &&
  track.points[0]?.frame === points[0]?.frame &&
  track.points[0]?.box.x === points[0]?.box.x;

const findMaster = ({ masters }: Job, shot: Shot) => {
  const master = masters.find(({ id }) => id === shot.master);
  if (!master) throw new TroubleError('cancelled');
  return master;
};

/** Finds the evidence of a shot's master. */
const getEvidence = ({ masters }: Pick<Job, 'masters'>, shot: Shot): Evidence => {
  const fingerprint = masters.find(({ id }) => id === shot.master)?.fingerprint ?? '';
  return useEvidence.getState()[fingerprint] ?? createEvidence(fingerprint);
};

/** Finds the paths of framings as the job is now, and keeps them as one step. */
async function solve(
  id: string,
  framings: readonly FramingToFollow[],
  wishes: FollowOptions,
  choose: ChooseSubjects,
  onPath: (done: number, total: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const job = jobNow(id);
  const notes: Record<string, FollowNote | undefined> = {};
  const wanted = framings.flatMap((to) => {
    const known = listShotSubjects(job, to.shot, getEvidence(job, to.shot));
    const before = framingToFollow(job, to);
    const subjects = choose(known, before);
    const task = followTask(job, to, subjects, wishes);
    notes[noteKey(id, to.shot)] =
      subjects.length === 0 ? 'nothing' : !task ? 'no-window' : isDivided(known) ? 'alike' : undefined;
    return task ? [{ to, subjects, task, before }] : [];
  });
  const paths = await findPaths(
    { shots: wanted.map(({ task }) => task) },
    { signal, onProgress: ({ done, total }) => onPath(done, total) },
  );
  if (signal.aborted) return;
  const now = jobNow(id);
  const found = wanted.flatMap(({ to, subjects, before }, i) => {
    const path = paths[i];
    if (!path) notes[noteKey(id, to.shot)] = 'no-path';
    // What was changed by hand meanwhile stays as it is.
    if (!path || !same(framingToFollow(now, to), before)) return [];
    return [applyFollowing(now, to, path, { subjects, wishes })];
  });
  useFollow.setState((state) => ({ notes: withNotes(state.notes, notes) }));
  if (found.length === 0) return;
  const [{ owner }] = framings as [FramingToFollow];
  dispatch(id, { type: 'set-framings', act: 'follow', owner, framings: found });
}

/** Tells whether two framings say the same. */
const same = (a: Framing, b: Framing): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

function withNotes(
  known: Record<string, FollowNote>,
  fresh: Record<string, FollowNote | undefined>,
): Record<string, FollowNote> {
  const all = Object.entries({ ...known, ...fresh });
  return Object.fromEntries(all.flatMap(([shot, note]) => (note ? [[shot, note]] : [])));
}
