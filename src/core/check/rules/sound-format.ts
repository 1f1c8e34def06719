import { AUDIO_BITS } from '../../rate/bit-rate';
import { bitsLabel } from '../../figures/figures';
import { codecName } from '../../master/master';
import { anyOf } from '../../outlets/judge';
import { exportChannels, exportSampleRate, exportSound } from '../../render/export-sound';
import { exportRule, outcome } from '../rule';

/** Kilohertz. */
interface SampleRate {
  rate: number;
  made: number;
}
interface Taken {
  made: string;
  taken: string;
}
const taken = ({ made, taken }: Taken): string => `${made}; asked ${taken}`;

/** Sample rate, channels and codec of the clip's sound, and what the export changes of the master's. */
export const soundFormatRule = exportRule({
  name: 'Sound format',
  reads: ['sources', 'plan', 'target'],
  outcomes: {
    none: outcome<object>(
      () => 'There is no sound to judge.',
      () => 'no sound',
    ),
    refused: outcome<Taken>(
      ({ made, taken }, { label }) => `The clip's sound is ${made}, but ${label} takes only ${taken}.`,
      taken,
    ),
    thin: outcome<Taken>(
      ({ made, taken }, { label }) => `Exports have sound of ${made}; ${label} asks for ${taken}.`,
      taken,
    ),
    folded: outcome<{ channels: number }>(
      ({ channels }) =>
        `The master has ${channels} channels. The export folds them to stereo by ITU-R BS.775.`,
      ({ channels }) => `${channels} channels, made 2`,
    ),
    resampled: outcome<SampleRate>(
      ({ rate, made }) => `The master's sound runs at ${rate} kHz. The export converts it to ${made} kHz.`,
      ({ rate, made }) => `${rate} kHz, made ${made} kHz`,
    ),
    widened: outcome<object>(
      (_, { label }) =>
        `The master's sound is mono, and ${label} wants stereo: both channels carry the same.`,
      () => '1 channel, made 2',
    ),
    kept: outcome<{ rate: number; channels: number }>(
      ({ rate, channels }) =>
        `AAC at ${rate} kHz, ${channels === 1 ? 'mono' : 'stereo'}, as the master has it.`,
      ({ rate, channels }) => `${rate} kHz, ${channels === 1 ? 'mono' : 'stereo'}`,
    ),
  },
  check({ sources, plan, target }) {
    const made = exportSound(plan);
    const { audio } = target.placement;
    if (!made) return { severity: 'pass', code: 'none', values: {} };
    const { sampleRate, channels } = made;
    const refused = (made: string, taken: string) =>
      ({ severity: 'stop', code: 'refused', values: { made, taken } }) as const;
    if (!audio.codecs.includes('aac')) return refused(codecName('aac'), anyOf(audio.codecs.map(codecName)));
    if (!audio.sampleRates.includes(sampleRate)) {
      const rates = anyOf(audio.sampleRates.map((rate) => String(rate / 1000)));
      return refused(`${sampleRate / 1000} kHz`, `${rates} kHz`);
    }
    if (channels > audio.mostChannels) return refused('stereo', 'mono');
    if (audio.leastBits !== null && AUDIO_BITS < audio.leastBits) {
      const values = { made: bitsLabel(AUDIO_BITS), taken: `${bitsLabel(audio.leastBits)} or more` };
      return { severity: 'warn', code: 'thin', values };
    }
    const sounds = sources.flatMap((source) => source.audio ?? []);
    const folded = sounds.find(({ channels }) => exportChannels(channels) !== channels);
    if (folded) return { severity: 'note', code: 'folded', values: { channels: folded.channels } };
    const other = sounds.find((sound) => exportSampleRate(sound.sampleRate) !== sound.sampleRate);
    if (other) {
      const values = { rate: other.sampleRate / 1000, made: sampleRate / 1000 };
      return { severity: 'note', code: 'resampled', values };
    }
    if (sounds.every((sound) => sound.channels < audio.leastChannels))
      return { severity: 'note', code: 'widened', values: {} };
    return { severity: 'pass', code: 'kept', values: { rate: sampleRate / 1000, channels } };
  },
});
