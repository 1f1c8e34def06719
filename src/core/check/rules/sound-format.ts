import { judgeSound } from '../../outlets/limits/sound';
import { bitsLabel } from '../../figures/figures';
import { channelWords, codecName } from '../../master/master';
import { joinAlternatives } from '../../outlets/limits/limit';
import type { Source } from '../../master/source';
import type { Placement } from '../../outlets/placement';
import { isForPlacement, type AudioEncodeSettings } from '../../render/encode-settings';
import { exportRule, outcome } from '../rule';

/** Kilohertz. */
interface SampleRate {
  rate: number;
  made: number;
}
interface TakenValues {
  made: string;
  taken: string;
}
const describeTaken = ({ made, taken }: TakenValues): string => `${made}; asked ${taken}`;

/** Sample rate, channels and codec of the clip's sound, and what the export changes of the master's. */
export const soundFormatRule = exportRule({
  name: 'Sound format',
  reads: ['sources', 'making', 'target'],
  outcomes: {
    none: outcome<object>(
      () => 'There is no sound to judge.',
      () => 'no sound',
    ),
    refused: outcome<TakenValues>(
      ({ made, taken }, { label }) => `The clip's sound is ${made}, but ${label} takes only ${taken}.`,
      describeTaken,
    ),
    thin: outcome<TakenValues>(
      ({ made, taken }, { label }) => `Exports have sound of ${made}; ${label} asks for ${taken}.`,
      describeTaken,
    ),
    folded: outcome<{ channels: number; made: number }>(
      ({ channels, made }) =>
        `The master has ${channelWords(channels)}. The export folds them to ` +
        (made === 1 ? 'mono.' : 'stereo by ITU-R BS.775.'),
      ({ channels, made }) => `${channels} channels, made ${made}`,
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
    kept: outcome<{ codec: string; rate: number; channels: number }>(
      ({ codec, rate, channels }) =>
        `${codec} at ${rate} kHz, ${channels === 1 ? 'mono' : 'stereo'}, as the master has it.`,
      ({ rate, channels }) => `${rate} kHz, ${channels === 1 ? 'mono' : 'stereo'}`,
    ),
  },
  check({ sources, making, target }) {
    const { placement } = target;
    const { sound } = making;
    if (!sound) return { severity: 'pass', code: 'none', values: {} };
    return (
      (isForPlacement(making, placement) ? againstOutlet(sound, placement.audio) : null) ??
      ofMasters(sound, sources)
    );
  },
});

const describeRefusal = (made: string, taken: string) =>
  ({ severity: 'stop', code: 'refused', values: { made, taken } }) as const;

/** Finds what an outlet has against the sound, or null. */
function againstOutlet(
  { codec, sampleRate, channels, bits }: AudioEncodeSettings,
  audio: Placement['audio'],
) {
  const broken = judgeSound({ codec, sampleRate, channels }, { audio });
  if (broken === 'codec')
    return describeRefusal(codecName(codec), joinAlternatives(audio.codecs.map(codecName)));
  if (broken === 'sample-rate') {
    const rates = joinAlternatives(audio.sampleRates.map((rate) => String(rate / 1000)));
    return describeRefusal(`${sampleRate / 1000} kHz`, `${rates} kHz`);
  }
  if (broken === 'too-many') return describeRefusal('stereo', 'mono');
  if (broken === 'too-few') return describeRefusal('mono', 'stereo');
  if (audio.leastBits === null || bits >= audio.leastBits) return null;
  const values = { made: bitsLabel(bits), taken: `${bitsLabel(audio.leastBits)} or more` };
  return { severity: 'warn', code: 'thin', values } as const;
}

/** Says what becomes of the masters' sound. */
function ofMasters({ codec, sampleRate, channels }: AudioEncodeSettings, sources: readonly Source[]) {
  const sounds = sources.flatMap((source) => source.audio ?? []);
  const folded = sounds.find((sound) => sound.channels > channels);
  if (folded) {
    const values = { channels: folded.channels, made: channels };
    return { severity: 'note', code: 'folded', values } as const;
  }
  const other = sounds.find((sound) => sound.sampleRate !== sampleRate);
  if (other) {
    const values = { rate: other.sampleRate / 1000, made: sampleRate / 1000 };
    return { severity: 'note', code: 'resampled', values } as const;
  }
  if (sounds.every((sound) => sound.channels < channels))
    return { severity: 'note', code: 'widened', values: {} } as const;
  const values = { codec: codecName(codec), rate: sampleRate / 1000, channels };
  return { severity: 'pass', code: 'kept', values } as const;
}
