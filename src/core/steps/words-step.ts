import { activeClip } from '../job/job';
import { NO_TEXT } from '../words/clip-text';
import { count, type StepKind } from './step';

export const wordsStep: StepKind = {
  title: 'Words',
  stand({ job }) {
    const { blocks, captions, card } = activeClip(job.edit).text ?? NO_TEXT;
    const parts = [
      blocks.length > 0 ? count(blocks.length, 'text block', 'text blocks') : '',
      captions.cues.length > 0 ? count(captions.cues.length, 'caption', 'captions') : '',
      card ? 'an end card' : '',
    ].filter(Boolean);
    return parts.length > 0
      ? { summary: parts.join(', '), standing: 'pass' }
      : { summary: 'None: feeds play without sound', standing: 'open' };
  },
};
