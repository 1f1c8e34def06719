import { exportChannels, exportSampleRate } from '../../render/export-sound';
import { CEILING } from '../../sound/limiter';
import { exportRule, outcome } from '../rule';

/** Kilohertz, and those that the outlet takes. */
interface SampleRate {
  rate: number;
  taken: string;
}
const figures = ({ rate, taken }: SampleRate): string => `${rate} kHz, limit ${taken} kHz`;

/** Sound present, and what the export changes of it. */
export const audioRule = exportRule({
  name: 'Sound',
  outcomes: {
    missing: outcome<{ chosen: boolean }>(
      ({ chosen }) =>
        chosen
          ? 'You chose to leave the sound out. The clip will be silent.'
          : 'The master has no sound. The clip will be silent.',
      () => 'no sound',
    ),
    partly: outcome<{ silent: number; masters: number }>(
      ({ silent, masters }) => `${silent} of the clip's ${masters} masters has no sound. It is silent there.`,
      ({ silent, masters }) => `${silent} of ${masters} masters`,
    ),
    folded: outcome<{ channels: number }>(
      ({ channels }) =>
        `The master has ${channels} channels. The export folds them to stereo, and holds what adds up ` +
        `under ${CEILING} dBTP.`,
      ({ channels }) => `${channels} channels, limit 2 channels`,
    ),
    loud: outcome<{ peak: number }>(
      ({ peak }) =>
        `The master's true peak is ${peak.toFixed(1)} dBTP. The export holds it under ${CEILING} dBTP.`,
      ({ peak }) => `${peak.toFixed(1)} dBTP, limit ${CEILING} dBTP`,
    ),
    resampled: outcome<SampleRate>(
      ({ rate }) => `The master's sound runs at ${rate} kHz. The export converts it to 48 kHz.`,
      figures,
    ),
    widened: outcome<SampleRate>(
      (_, { label }) =>
        `The master's sound is mono, and ${label} wants stereo: both channels carry the same.`,
      () => '1 channel, limit 2 channels',
    ),
    present: outcome<SampleRate>(({ rate }) => `Sound at ${rate} kHz.`, figures),
  },
  check({ sources, looks, target }) {
    const { required, sampleRates, leastChannels } = target.placement.audio;
    const taken = sampleRates.map((rate) => rate / 1000).join(' or ');
    const sounds = sources.flatMap(({ audio }) => (audio ? [audio] : []));
    const [first] = sounds;
    if (!first) {
      const chosen = sources.some(({ audioTracks }) => audioTracks.length > 0);
      return { severity: required ? 'stop' : 'warn', code: 'missing', values: { chosen } };
    }
    const silent = sources.length - sounds.length;
    if (silent > 0) return { severity: 'note', code: 'partly', values: { silent, masters: sources.length } };
    const folded = sounds.find(({ channels }) => exportChannels(channels) !== channels);
    if (folded) return { severity: 'note', code: 'folded', values: { channels: folded.channels } };
    const peaks = looks.flatMap(({ pass }) => pass?.sound?.truePeak ?? []);
    const peak = Math.max(-Infinity, ...peaks);
    if (peak > CEILING) return { severity: 'note', code: 'loud', values: { peak } };
    const other = sounds.find(({ sampleRate }) => exportSampleRate(sampleRate) !== sampleRate);
    if (other)
      return { severity: 'note', code: 'resampled', values: { rate: other.sampleRate / 1000, taken } };
    const values = { rate: first.sampleRate / 1000, taken };
    if (sounds.every(({ channels }) => channels < leastChannels))
      return { severity: 'note', code: 'widened', values };
    return { severity: 'pass', code: 'present', values };
  },
});
