import { exportChannels, exportSampleRate } from '../../sound/sound';
import type { Rule } from '../finding';

/** Sound present, and what the export changes of it. */
export const audioRule: Rule = {
  id: 'audio',
  check({ master, target }) {
    const { audio } = master;
    const limit = target.placement.audio.sampleRates.map((rate) => rate / 1000).join(' or ');
    const base = { rule: 'audio', limit, unit: 'kHz', holds: 'export' } as const;
    if (!audio) {
      const severity = target.placement.audio.required ? 'stop' : 'warn';
      return { ...base, severity, code: 'missing', measured: 'no sound', unit: '' };
    }
    const measured = audio.sampleRate / 1000;
    if (exportChannels(audio.channels) !== audio.channels) {
      return {
        ...base,
        severity: 'note',
        code: 'folded',
        measured: audio.channels,
        limit: 2,
        unit: 'channels',
      };
    }
    if (exportSampleRate(audio.sampleRate) !== audio.sampleRate) {
      return { ...base, severity: 'note', code: 'resampled', measured };
    }
    return { ...base, severity: 'pass', code: 'present', measured };
  },
};
