import { cutFrames, toMasterLengths } from '../cut/cut';
import { activeCanvas } from '../job/clip';
import { activeClip, listSources } from '../job/job';
import { toSeconds } from '../time/frame-rate';
import { lengthLabel } from '../time/timecode';
import { cardFrames } from '../words/clip-text';
import { findFinding, type StepKind } from './step';

export const lengthStep: StepKind = {
  title: 'Length',
  stand({ job, findings }) {
    const clip = activeClip(job.edit);
    const { cut } = clip;
    const { rate } = activeCanvas(clip);
    const sources = listSources(job);
    const kept = toSeconds(cutFrames(cut, toMasterLengths(sources), rate), rate);
    const whole = sources
      .filter(({ id }) => cut.some((range) => range.master === id))
      .reduce((sum, { frames, rate }) => sum + toSeconds(frames, rate), 0);
    const card = cardFrames(clip.text?.card, rate);
    const more = card > 0 ? `, and ${lengthLabel(toSeconds(card, rate))} of end card` : '';
    const summary = `${lengthLabel(kept)} kept of ${lengthLabel(whole)}${more}`;
    return { summary, standing: findFinding(findings, 'length')?.severity ?? 'open' };
  },
};
