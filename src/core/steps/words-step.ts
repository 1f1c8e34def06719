import { formatCount } from '../figures/figures';
import { activeClip } from '../job/job';
import { NO_TEXT } from '../words/clip-text';
import type { StepKind } from './step';

export const wordsStep: StepKind = {
  title: 'Words',
  stand({ job }) {
    const { blocks, captions, card } = activeClip(job.edit).text ?? NO_TEXT;
    const parts = [
      blocks.length > 0 ? formatCount(blocks.length, 'text block', 'text blocks') : '',
      captions.cues.length > 0 ? formatCount(captions.cues.length, 'caption', 'captions') : '',
      card ? 'an end card' : '',
    ].filter(Boolean);
    return parts.length > 0
      ? { summary: parts.join(', '), standing: 'pass' }
      : { summary: 'None yet; most feeds start muted', standing: 'open' };
  },
};
