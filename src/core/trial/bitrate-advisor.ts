import type { CheckContext } from '../check/check-input';
import type { CheckSubject } from '../check/subject-plan';
import { onCanvas, onClip } from '../job/job';
import type { Sheets } from '../outlets/rule-sheet';
import { adviseBitrate } from './advice';
import { type RateTrial, trialKey } from './rate-trial';

/** Creates the function that finds the bitrate that trials advise for a canvas as it is now. */
export const createBitrateAdvisor =
  (trials: readonly RateTrial[], sheets: Sheets): NonNullable<CheckContext['advisedOf']> =>
  (subject) => {
    const trial = findTrial(trials, sheets, subject);
    return trial && adviseBitrate(trial).knee;
  };

/** The trial that was made of a canvas as it is now; null where there is none, or something was changed since. */
function findTrial(
  trials: readonly RateTrial[],
  sheets: Sheets,
  { work, clip, canvas }: Pick<CheckSubject, 'work' | 'clip' | 'canvas'>,
): RateTrial | null {
  const made = trials.filter((trial) => trial.clip === clip.id && trial.canvas === canvas.id);
  if (made.length === 0) return null;
  const key = trialKey(onCanvas(onClip(work, clip.id), canvas.id), sheets);
  return made.find((trial) => trial.key === key) ?? null;
}
