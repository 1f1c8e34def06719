import { cutFrames, lengthsIn } from '../cut/cut';
import { activeCanvas } from '../job/clip';
import { activeClip, sourcesIn } from '../job/job';
import { secondsOf } from '../time/frame-rate';
import { lengthLabel } from '../time/timecode';
import { cardFrames } from '../words/clip-text';
import { findingOf, type StepKind } from './step';

export const lengthStep: StepKind = {
  title: 'Length',
  stand({ job, findings }) {
    const clip = activeClip(job.edit);
    const { cut } = clip;
    const { rate } = activeCanvas(clip);
    const sources = sourcesIn(job);
    const kept = secondsOf(cutFrames(cut, lengthsIn(sources), rate), rate);
    const whole = sources
      .filter(({ id }) => cut.some((range) => range.master === id))
      .reduce((sum, { frames, rate }) => sum + secondsOf(frames, rate), 0);
    const card = cardFrames(clip.text?.card, rate);
    const more = card > 0 ? `, and ${lengthLabel(secondsOf(card, rate))} of end card` : '';
    const summary = `${lengthLabel(kept)} kept of ${lengthLabel(whole)}${more}`;
    return { summary, standing: findingOf(findings, 'length')?.severity ?? 'open' };
  },
};
