import { makingOfJob } from '@core/check/check';
import { activeClip, type Job } from '@core/job/job';
import { type RateTrial, rateTrialSchema, trialKey, trialOrder, trialPlans } from '@core/trial/rate-trial';
import { type Trouble, TroubleError, troubleOf } from '@core/trouble/trouble';
import type { RateTried } from '@media/trial/rate-trial-task';
import { deleteStoredFrom, storedFile, storedNames, writeSmall } from '@media/store/storage';
import { tryExportRates } from '@media/worker/tasks';
import { keepFound, trialName, type TrialRun, useRateTrials } from './found-trials';
import { makerOf, orderOf, requestOf } from './order-of';
import { passOf } from './passes';
import { tryRatesOnServer } from './render-server';
import { sheetsNow } from './sheets';

const FACTS = '.trial.json';
const pictureName = (name: string, kind: keyof RateTried['pictures'][number], rate: number): string =>
  `${name}.${rate}.${kind}.png`;

/** Reads what earlier visits found; one that cannot be read is tried again. */
export async function openRateTrials(): Promise<void> {
  for (const file of await storedNames('trials')) {
    if (!file.endsWith(FACTS)) continue;
    const stored = await storedFile('trials', file);
    const read = rateTrialSchema.safeParse(JSON.parse((await stored?.text()) || 'null'));
    if (read.success) keepFound(file.slice(0, -FACTS.length), read.data);
  }
}

/** Tries the rates of the canvas that a job works on; what it finds is kept. */
export async function startRateTrial(job: Job): Promise<void> {
  const name = trialName(job);
  const sheets = [...sheetsNow()];
  const order = trialOrder(job, { sheets, passOf });
  const { picture } = makingOfJob(job, { sheets });
  if (!order || !picture || useRateTrials.getState().running[name]) return;
  const stop = new AbortController();
  const now = (run: Omit<TrialRun, 'stop'> | null, trouble: Trouble | null = null): void =>
    useRateTrials.setState(({ running, troubles }) => ({
      running: changed(running, name, run && { ...run, stop }),
      troubles: changed(troubles, name, trouble),
    }));
  now({ done: 0, total: 1 });
  try {
    const clip = activeClip(job.edit);
    const canvas = clip.canvas;
    const following = { signal: stop.signal, onProgress: (run: { done: number; total: number }) => now(run) };
    const maker = makerOf(job);
    const tried =
      maker === 'browser'
        ? await tryExportRates({ order, picture, plans: trialPlans(job, sheets, order) }, following)
        : await tryRatesOnServer({ ...requestOf(job, orderOf(job)), trial: order }, following);
    const trial: RateTrial = {
      ...{ schemaVersion: 1, clip: clip.id, canvas, key: trialKey(job, sheets), maker, rung: order.rung },
      ...tried.result,
    };
    await store(name, trial, tried.pictures);
    keepFound(name, trial);
    now(null);
  } catch (error) {
    const trouble = troubleOf(error, 'export-failed', {});
    now(null, trouble.code === 'cancelled' ? null : trouble);
    if (!(error instanceof TroubleError)) console.error('the bit rates could not be tried', error);
  }
}

function changed<T>(all: Record<string, T>, name: string, value: T | null): Record<string, T> {
  const { [name]: _gone, ...others } = all;
  return value === null ? others : { ...others, [name]: value };
}

/** Pictures first: facts that are there have theirs. */
async function store(name: string, trial: RateTrial, pictures: RateTried['pictures']): Promise<void> {
  await deleteStoredFrom('trials', `${name}.`);
  for (const [rate, { planned, viewed }] of pictures.entries()) {
    await writeSmall('trials', pictureName(name, 'planned', rate), planned);
    await writeSmall('trials', pictureName(name, 'viewed', rate), viewed);
  }
  await writeSmall('trials', `${name}${FACTS}`, new Blob([JSON.stringify(trial)]));
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

/** Stops and deletes all trials of a job. */
export async function forgetRateTrials(jobId: string): Promise<void> {
  const { running, found } = useRateTrials.getState();
  const ours = (name: string) => name.startsWith(`${jobId}.`);
  for (const name of Object.keys(running).filter(ours)) stopRateTrial(name);
  useRateTrials.setState({
    found: Object.fromEntries(Object.entries(found).filter(([name]) => !ours(name))),
  });
  await deleteStoredFrom('trials', `${jobId}.`);
}
