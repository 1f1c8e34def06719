import { toJobEncodeSettings } from '@core/check/check';
import { activeClip, type Job } from '@core/job/job';
import { type RateTrial, rateTrialSchema, trialKey, trialOrder, trialPlans } from '@core/trial/rate-trial';
import { type Trouble, TroubleError, toTrouble } from '@core/trouble/trouble';
import type { RateTried } from '@media/trial/rate-trial-task';
import { deleteAllStored, storedFile, storedNames, writeSmall } from '@media/store/storage';
import { tryExportRates } from '@media/worker/tasks';
import { keepFound, trialName, type TrialRun, useRateTrials } from './found-trials';
import { chooseMaker, toOrder, toRenderRequest } from './export-order';
import { getPass } from '../master';
import { tryRatesOnServer } from './render-server';
import { sheetsNow } from '../job';

const FACTS = '.trial.json';
const pictureName = (name: string, kind: keyof RateTried['pictures'][number], rate: number): string =>
  `${name}.${rate}.${kind}.png`;

/** Reads what earlier visits found; one that cannot be read is tried again. */
export async function openRateTrials(): Promise<void> {
  for (const file of await storedNames('trials')) {
    if (!file.endsWith(FACTS)) continue;
    const trial = await readStored(file);
    if (trial) keepFound(file.slice(0, -FACTS.length), trial);
  }
}

async function readStored(file: string): Promise<RateTrial | null> {
  try {
    const stored = await storedFile('trials', file);
    return stored && rateTrialSchema.parse(JSON.parse(await stored.text()));
  } catch {
    return null;
  }
}

/** Tries the rates of the canvas that a job works on; what it finds is kept. Resolves when it ended. */
export function startRateTrial(job: Job): Promise<void> {
  const name = trialName(job);
  const running = ends.get(name);
  if (running) return running;
  const ended = tryOnce(job, name).finally(() => ends.delete(name));
  ends.set(name, ended);
  return ended;
}

/** When trials that run will have ended. */
const ends = new Map<string, Promise<void>>();

async function tryOnce(job: Job, name: string): Promise<void> {
  const sheets = [...sheetsNow()];
  const order = trialOrder(job, { sheets, passOf: getPass });
  const { picture } = toJobEncodeSettings(job, { sheets });
  if (!order || !picture) return;
  const stop = new AbortController();
  const now = (run: Omit<TrialRun, 'stop'> | null, trouble: Trouble | null = null): void =>
    useRateTrials.setState(({ running, troubles }) => ({
      running: changeEntry(running, name, run && { ...run, stop }),
      troubles: changeEntry(troubles, name, trouble),
    }));
  now({ done: 0, total: 1 });
  try {
    const clip = activeClip(job.edit);
    const canvas = clip.canvas;
    const following = { signal: stop.signal, onProgress: (run: { done: number; total: number }) => now(run) };
    const maker = chooseMaker(job);
    const tried =
      maker === 'browser'
        ? await tryExportRates({ order, picture, plans: trialPlans(job, sheets, order) }, following)
        : await tryRatesOnServer({ ...toRenderRequest(job, toOrder(job)), trial: order }, following);
    const trial: RateTrial = {
      ...{ schemaVersion: 1, clip: clip.id, canvas, key: trialKey(job, sheets), maker, rung: order.rung },
      ...tried.result,
    };
    await store(name, trial, tried.pictures, stop.signal);
    keepFound(name, trial);
    now(null);
  } catch (error) {
    const trouble = toTrouble(error, 'export-failed', {});
    now(null, trouble.code === 'cancelled' ? null : trouble);
    if (!(error instanceof TroubleError)) console.error('the bit rates could not be tried', error);
  }
}

function changeEntry<T>(all: Record<string, T>, name: string, value: T | null): Record<string, T> {
  const { [name]: _gone, ...others } = all;
  return value === null ? others : { ...others, [name]: value };
}

/** Takes the place of what was found before. Pictures first: facts that are there have theirs. */
async function store(
  name: string,
  trial: RateTrial,
  pictures: RateTried['pictures'],
  signal: AbortSignal,
): Promise<void> {
  await drop(name);
  try {
    for (const [rate, { planned, viewed }] of pictures.entries()) {
      await writeSmall('trials', pictureName(name, 'planned', rate), planned);
      await writeSmall('trials', pictureName(name, 'viewed', rate), viewed);
    }
    await writeSmall('trials', `${name}${FACTS}`, new Blob([JSON.stringify(trial)]));
    if (signal.aborted) throw new TroubleError('cancelled');
  } catch (error) {
    await drop(name);
    throw error;
  }
}

/** Forgets what a trial found, and deletes its files. */
async function drop(name: string): Promise<void> {
  useRateTrials.setState(({ found }) => ({ found: changeEntry(found, name, null) }));
  await deleteAllStored('trials', `${name}.`);
}

export const stopRateTrial = (name: string): void => useRateTrials.getState().running[name]?.stop.abort();

/** The worst frame at one rate, as planned and as a viewer would get it; null where it is not kept any more. */
export async function worstPictures(
  name: string,
  rate: number,
): Promise<{ planned: File; viewed: File } | null> {
  const planned = await storedFile('trials', pictureName(name, 'planned', rate));
  const viewed = await storedFile('trials', pictureName(name, 'viewed', rate));
  return planned && viewed && { planned, viewed };
}

/** Stops and deletes all trials of a job, once nothing writes any more. */
export async function forgetRateTrials(jobId: string): Promise<void> {
  const ours = (name: string) => name.startsWith(`${jobId}.`);
  const running = [...ends.keys()].filter(ours);
  for (const name of running) stopRateTrial(name);
  await Promise.all(running.map((name) => ends.get(name)));
  for (const name of Object.keys(useRateTrials.getState().found).filter(ours)) await drop(name);
  await deleteAllStored('trials', `${jobId}.`);
}
