import { activeClip, sourcesIn } from '../job/job';
import { secondsOf } from '../time/frame-rate';
import { lengthLabel } from '../time/timecode';
import { findingOf, type StepKind } from './step';

export const lengthStep: StepKind = {
  title: 'Length',
  stand({ job, findings }) {
    const length = findingOf(findings, 'length');
    const { cut } = activeClip(job.edit);
    const whole = sourcesIn(job)
      .filter(({ id }) => cut.some((range) => range.master === id))
      .reduce((sum, { frames, rate }) => sum + secondsOf(frames, rate), 0);
    const summary = `${lengthLabel(length?.values.seconds ?? 0)} kept of ${lengthLabel(whole)}`;
    return { summary, standing: length?.severity ?? 'open' };
  },
};
