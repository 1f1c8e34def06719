import { create } from 'zustand';
import { activeCanvas } from '@core/job/clip';
import { activeClip, type Job } from '@core/job/job';
import { PLAIN_ENCODING } from '@core/rate/encoding';
import { createBitrateAdvisor } from '@core/trial/bitrate-advisor';
import type { RateTrial } from '@core/trial/rate-trial';
import type { Trouble } from '@core/trouble/trouble';
import { sheetsNow } from '../job';

/** A trial that runs. */
export interface TrialRun {
  done: number;
  total: number;
  stop: AbortController;
}

interface TrialsState {
  /** Results by {@link trialName}. */
  found: Record<string, RateTrial>;
  running: Record<string, TrialRun>;
  /** Why the last one of a canvas ended early. */
  troubles: Record<string, Trouble>;
}

/** Trials of bit rates. */
export const useRateTrials = create<TrialsState>(() => ({ found: {}, running: {}, troubles: {} }));

/** Under which a trial of the canvas that a job works on is kept: one by each maker. */
export function trialName(job: Job): string {
  const clip = activeClip(job.edit);
  const { id, encoding } = activeCanvas(clip);
  return [job.id, clip.id, id, (encoding ?? PLAIN_ENCODING).maker].join('.');
}

/** Keeps what a trial found in sight. */
export const keepFound = (name: string, trial: RateTrial): void =>
  useRateTrials.setState(({ found }) => ({ found: { ...found, [name]: trial } }));

/** Everything that was found. */
export const allTrials = (): RateTrial[] => Object.values(useRateTrials.getState().found);

/** Creates the advisor of bitrates from the current trials. */
export const createCurrentAdvisor = () => createBitrateAdvisor(allTrials(), sheetsNow());
