import { exportChannels, exportSampleRate } from '../../render/export-sound';
import type { Rule } from '../finding';

/** Sound present, and what the export changes of it. */
export const audioRule: Rule = {
  id: 'audio',
  check({ sources, target }) {
    const limit = target.placement.audio.sampleRates.map((rate) => rate / 1000).join(' or ');
    const base = { rule: 'audio', limit, unit: 'kHz', holds: 'export' } as const;
    const sounds = sources.flatMap(({ audio }) => (audio ? [audio] : []));
    const [first] = sounds;
    if (!first) {
      const severity = target.placement.audio.required ? 'stop' : 'warn';
      return { ...base, severity, code: 'missing', measured: 'no sound', unit: '' };
    }
    const silent = sources.length - sounds.length;
    if (silent > 0) {
      return {
        ...base,
        severity: 'note',
        code: 'partly',
        measured: silent,
        limit: sources.length,
        unit: 'masters',
      };
    }
    const measured = first.sampleRate / 1000;
    const folded = sounds.find(({ channels }) => exportChannels(channels) !== channels);
    if (folded) {
      return {
        ...base,
        severity: 'note',
        code: 'folded',
        measured: folded.channels,
        limit: 2,
        unit: 'channels',
      };
    }
    const other = sounds.find(({ sampleRate }) => exportSampleRate(sampleRate) !== sampleRate);
    if (other) return { ...base, severity: 'note', code: 'resampled', measured: other.sampleRate / 1000 };
    return { ...base, severity: 'pass', code: 'present', measured };
  },
};
