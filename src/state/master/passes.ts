import { toRateChange } from '@core/job/retime';
import { create } from 'zustand';
import type { AnalysisLookup } from '@core/check/master-analysis';
import type { Boundary } from '@core/cut/shots';
import { type Job } from '@core/job/job';
import { listShots } from '@core/cut/master-shots';
import { sureEdges } from '@core/diagnosis/found-edges';
import type { Master } from '@core/master/master';
import { NO_REPAIRS } from '@core/master/repairs';
import { toSource } from '@core/master/source';
import { hasMeasuredSound, type AnalysisResult, passNames, passSchema } from '@core/pass/pass';
import { uprightRect } from '@core/picture/live-area';
import { scaleFrames } from '@core/time/frame-rate';
import { toTrouble, type Trouble, TroubleError } from '@core/trouble/trouble';
import { deleteAllStored, storedFile } from '@media/store/storage';
import { passOverMaster } from '@media/worker/tasks';
import { dispatch, canChangeJob, markOffered, useJobs } from '../job';
import { player } from '../player';
import { keepLock } from '../store';
import { TaskQueue } from '../task';

/** Where the pass over a master stands. */
export type PassState =
  | { state: 'waiting' }
  /** `left`: seconds, or null while there is nothing to reckon from. */
  | { state: 'running'; done: number; total: number; left: number | null }
  | { state: 'done'; pass: AnalysisResult }
  | { state: 'stopped' }
  | { state: 'failed'; trouble: Trouble };

/** By fingerprint. */
export const usePasses = create<Record<string, PassState>>(() => ({}));

/** Selects the result of an analysis, or null before it is done. */
export const selectPass = (state: PassState | undefined): AnalysisResult | null =>
  state?.state === 'done' ? state.pass : null;

export const getPass: AnalysisLookup = (fingerprint) => selectPass(usePasses.getState()[fingerprint]);

const queue = new TaskQueue();

const putState = (fingerprint: string, state: PassState): void =>
  usePasses.setState({ [fingerprint]: state });

/** Sees to it that every master of a job was looked at; a stored pass is read, else one is run. */
export function ensurePasses(job: Job): void {
  for (const master of job.masters) {
    const known = usePasses.getState()[master.fingerprint];
    if (known?.state === 'done' && hasMeasuredSound(known.pass, master)) takeFound(known.pass);
    else if (!known || known.state === 'done') begin(master);
  }
}

/** Runs a pass that was stopped or failed again. */
export function runPassAgain(master: Master): void {
  begin(master);
}

export function stopPass(fingerprint: string): void {
  queue.cancel(fingerprint);
}

/** Forgets what is known of a master that is deleted. Resolves when nothing more is made of it. */
export async function forgetPass(fingerprint: string): Promise<void> {
  const ended = queue.cancelled(fingerprint);
  usePasses.setState((all) => {
    const { [fingerprint]: _gone, ...rest } = all;
    return rest;
  }, true);
  await ended;
}

function begin(master: Master): void {
  const { fingerprint, fileName } = master;
  putState(fingerprint, { state: 'waiting' });
  let made = false;
  const running = queue.add(fingerprint, {
    async run(signal) {
      // Another tab may look at the same master: then what it finds is taken.
      const lock = await keepLock(`gusset/pass/${fingerprint}`, 'wait', signal);
      if (!lock) throw new TroubleError('cancelled');
      try {
        const stored = await storedPass(master);
        if (stored) return stored;
        made = true;
        return await lookWhole(master, signal);
      } finally {
        lock.release();
      }
    },
    // What a pass leaves is removed while no other tab looks.
    clean: () => Promise.resolve(),
    trouble: (error) => toTrouble(error, 'damaged', { file: fileName }),
  });
  void running.then((outcome) => {
    // Forgotten meanwhile, or begun again: nothing is left to be said of this one.
    if (usePasses.getState()[fingerprint] === undefined || queue.has(fingerprint)) return;
    if (outcome.state === 'cancelled') return putState(fingerprint, { state: 'stopped' });
    if (outcome.state === 'failed')
      return putState(fingerprint, { state: 'failed', trouble: outcome.trouble });
    // The jobs first: who waits for the look goes on from what it mended.
    takeFound(outcome.result);
    putState(fingerprint, { state: 'done', pass: outcome.result });
    if (made) player.findProxy(fingerprint);
  });
}

/** Looks at a master; nothing of it stays when that failed or was stopped. */
async function lookWhole(master: Master, signal: AbortSignal): Promise<AnalysisResult> {
  try {
    const pass = await look(master, signal);
    if (signal.aborted) throw new TroubleError('cancelled');
    return pass;
  } catch (error) {
    await deleteAllStored('passes', master.fingerprint);
    throw error;
  }
}

function look(master: Master, signal: AbortSignal): Promise<AnalysisResult> {
  const began = performance.now();
  const onProgress = ({ done, total }: { done: number; total: number }) => {
    const left = done > 0 ? ((performance.now() - began) / 1000 / done) * (total - done) : null;
    putState(master.fingerprint, { state: 'running', done, total, left });
  };
  onProgress({ done: 0, total: master.frames });
  return passOverMaster({ source: toSource(master) }, { signal, onProgress });
}

/** A pass of an earlier visit; one that cannot be read, or heard another track, is made again. */
export async function storedPass(master: Master): Promise<AnalysisResult | null> {
  const file = await storedFile('passes', passNames(master.fingerprint).facts);
  if (!file) return null;
  try {
    const pass = passSchema.parse(JSON.parse(await file.text()));
    return hasMeasuredSound(pass, master) ? pass : null;
  } catch {
    return null;
  }
}

/** Gives what was found for sure to every job of that master that is worked on here, once: its edges and its shots. */
function takeFound(pass: AnalysisResult): void {
  for (const { job } of Object.values(useJobs.getState().files)) {
    const master = job.masters.find((master) => master.fingerprint === pass.fingerprint);
    if (!master || job.offered.includes(master.id) || !canChangeJob(job.id)) continue;
    markOffered(job.id, master.id);
    takeEdges(job, master, pass);
    const own = job.edit.shots.some((shot) => shot.master === master.id);
    if (!own && pass.shots.length > 1) takeShots(job, master, pass);
  }
}

/** Takes edges that were found for sure, so that no bar of the master comes into a clip. */
function takeEdges(job: Job, master: Master, pass: AnalysisResult): void {
  const known = job.edit.repairs[master.id] ?? NO_REPAIRS;
  const source = toSource(master, known);
  const repairs = sureEdges(pass, source, known);
  const rates = toRateChange(source, source);
  if (repairs) dispatch(job.id, { type: 'set-repairs', master: master.id, repairs, rates });
}

/** Replaces a master's shots by those that the pass found; framings go over to the shots that they lie in. */
export function takeShots(job: Job, master: Master, pass: AnalysisResult): void {
  const source = toSource(master, job.edit.repairs[master.id]);
  // The pass counted at the file's own rate.
  const scaleFrame = (frame: number) => scaleFrames(frame, master.rate, source.rate);
  const boundaries: Boundary[] = pass.shots.map(({ frame, start, live }) => ({
    frame: scaleFrame(frame),
    start,
    live: live && uprightRect(live, source),
  }));
  const old = listShots(job.edit.shots, source);
  const { frames } = source;
  dispatch(job.id, { type: 'set-shots', act: 'found', master: master.id, old, boundaries, frames });
}
