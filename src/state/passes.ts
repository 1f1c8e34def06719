import { create } from 'zustand';
import type { Boundary } from '@core/cut/shots';
import { type Job } from '@core/job/job';
import { shotsOf } from '@core/cut/master-shots';
import type { Master } from '@core/master/master';
import { sourceOf } from '@core/master/source';
import { type Pass, passNames, passSchema } from '@core/pass/pass';
import { uprightRect } from '@core/picture/live-area';
import { scaledFrames } from '@core/time/frame-rate';
import { troubleOf, type Trouble } from '@core/trouble/trouble';
import { storedFile } from '@media/store/storage';
import { passOverMaster } from '@media/worker/tasks';
import { dispatch, useJobs } from './jobs';
import { proxyMade } from './player';

/** Where the pass over a master stands. */
export type PassState =
  | { state: 'waiting' }
  /** `left`: seconds, or null while there is nothing to reckon from. */
  | { state: 'running'; done: number; total: number; left: number | null }
  | { state: 'done'; pass: Pass }
  | { state: 'stopped' }
  | { state: 'failed'; trouble: Trouble };

/** By fingerprint. */
export const usePasses = create<Record<string, PassState>>(() => ({}));

const stops = new Map<string, AbortController>();
let queue: Promise<unknown> = Promise.resolve();

const put = (fingerprint: string, state: PassState): void => usePasses.setState({ [fingerprint]: state });

/** Sees to it that every master of a job was looked at; a stored pass is read, else one is run. */
export function ensurePasses(job: Job): void {
  for (const master of job.masters) {
    const known = usePasses.getState()[master.fingerprint];
    if (known?.state === 'done') takeFoundShots(known.pass);
    else if (!known) begin(master);
  }
}

/** Runs a pass that was stopped or failed again. */
export function runPassAgain(master: Master): void {
  begin(master);
}

export function stopPass(fingerprint: string): void {
  stops.get(fingerprint)?.abort();
}

/** Forgets what is known of a master that is deleted. */
export function forgetPass(fingerprint: string): void {
  stopPass(fingerprint);
  usePasses.setState((all) => {
    const { [fingerprint]: _gone, ...rest } = all;
    return rest;
  }, true);
}

function begin(master: Master): void {
  const { fingerprint } = master;
  const stop = new AbortController();
  stops.set(fingerprint, stop);
  put(fingerprint, { state: 'waiting' });
  queue = queue.then(() => run(master, stop.signal));
}

async function run(master: Master, signal: AbortSignal): Promise<void> {
  const { fingerprint } = master;
  try {
    const stored = await storedPass(fingerprint);
    const pass = stored ?? (await look(master, signal));
    put(fingerprint, { state: 'done', pass });
    takeFoundShots(pass);
    if (!stored) proxyMade(fingerprint);
  } catch (error) {
    const trouble = troubleOf(error, 'damaged', { file: master.fileName });
    put(fingerprint, trouble.code === 'cancelled' ? { state: 'stopped' } : { state: 'failed', trouble });
  } finally {
    stops.delete(fingerprint);
  }
}

function look(master: Master, signal: AbortSignal): Promise<Pass> {
  const began = performance.now();
  const onProgress = ({ done, total }: { done: number; total: number }) => {
    const left = done > 0 ? ((performance.now() - began) / 1000 / done) * (total - done) : null;
    put(master.fingerprint, { state: 'running', done, total, left });
  };
  onProgress({ done: 0, total: master.frames });
  return passOverMaster({ source: sourceOf(master) }, { signal, onProgress });
}

/** A pass of an earlier visit; one that cannot be read is made again. */
async function storedPass(fingerprint: string): Promise<Pass | null> {
  const file = await storedFile('passes', passNames(fingerprint).facts);
  if (!file) return null;
  try {
    return passSchema.parse(JSON.parse(await file.text()));
  } catch {
    return null;
  }
}

/** Gives the found shots to every job that has none of that master yet, and never took them before. */
function takeFoundShots(pass: Pass): void {
  if (pass.shots.length < 2) return;
  for (const { job, history } of Object.values(useJobs.getState().files)) {
    const master = job.masters.find((one) => one.fingerprint === pass.fingerprint);
    if (!master || job.edit.shots.some((shot) => shot.master === master.id)) continue;
    const took = [...history.past, ...history.future].some(({ name }) => name === FOUND);
    if (!took) takeShots(job, master, pass);
  }
}

const FOUND = 'take the found shots';

/** Replaces a master's shots by those that the pass found; framings go over to the shots that they lie in. */
export function takeShots(job: Job, master: Master, pass: Pass): void {
  const source = sourceOf(master, job.edit.repairs[master.id]);
  // The pass counted at the file's own rate.
  const at = (frame: number) => scaledFrames(frame, master.rate, source.rate);
  const boundaries: Boundary[] = pass.shots.map(({ frame, start, live }) => ({
    frame: at(frame),
    start,
    live: live && uprightRect(live, source),
  }));
  const old = shotsOf(job.edit.shots, source);
  const { frames } = source;
  dispatch(job.id, { type: 'set-shots', act: 'found', master: master.id, old, boundaries, frames });
}
