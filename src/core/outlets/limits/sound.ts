import { z } from 'zod';
import { boundedInt, boundedNumber, MAX_BITRATE, MAX_COUNT, MAX_MEASURE } from '../../figures/bounded';
import { codecName } from '../../master/master';
import { listOptions, numberField, optionalNumberField } from './field';
import { joinAlternatives, declareLimit } from './limit';

/** Codecs of the sound by their short names. */
const AUDIO_CODECS = ['aac', 'opus', 'mp3'] as const;

/** Rules of a placement for the sound. */
const audioSchema = z
  .object({
    required: z.boolean(),
    codecs: z.array(z.enum(AUDIO_CODECS)).min(1),
    /** Hertz. */
    sampleRates: z.array(boundedInt(1, MAX_COUNT)).min(1),
    /** Where the least is 2, a mono master goes out with the same in both. */
    leastChannels: z.union([z.literal(1), z.literal(2)]),
    mostChannels: boundedInt(1, 8),
    /** A second. */
    leastBits: boundedInt(1, MAX_BITRATE).nullable(),
    /** Target that the outlet brings every clip to, in LUFS, and the LU within which it changes nothing audible. */
    loudness: z
      .object({ target: boundedNumber(-40, 0), within: boundedNumber(0, MAX_MEASURE).positive() })
      .nullable(),
    /** Most true peak, in dBTP. */
    mostPeak: boundedNumber(-20, 0).nullable(),
  })
  .refine(({ leastChannels, mostChannels }) => leastChannels <= mostChannels, {
    error: 'The fewest channels are over the most.',
    path: ['leastChannels'],
  });

/** Rules that the sound is judged by. */
interface SoundRules {
  codecs: readonly string[];
  sampleRates: readonly number[];
  leastChannels: number;
  mostChannels: number;
}

/** Judges the sound. Its bit rate is not held against it: silence takes next to none, whatever was asked for. */
export function judgeSound(
  { codec, sampleRate, channels }: { codec: string; sampleRate: number; channels: number },
  { audio }: { audio: SoundRules },
): 'codec' | 'sample-rate' | 'too-few' | 'too-many' | null {
  if (!audio.codecs.includes(codec)) return 'codec';
  if (!audio.sampleRates.includes(sampleRate)) return 'sample-rate';
  if (channels < audio.leastChannels) return 'too-few';
  return channels > audio.mostChannels ? 'too-many' : null;
}

/** Limit on the sound: codec, sample rate, channels; with the loudness that the outlet brings clips to. */
export const soundLimit = declareLimit({
  name: 'sound',
  shape: { audio: audioSchema },
  plain: {
    audio: {
      required: false,
      codecs: ['aac'],
      sampleRates: [44_100, 48_000],
      leastChannels: 1,
      mostChannels: 8,
      leastBits: null,
      loudness: null,
      mostPeak: null,
    },
  },
  section: 'Sound',
  fields: [
    { path: 'audio.required', label: 'Sound is required', as: { kind: 'flag' } },
    {
      path: 'audio.codecs',
      label: 'Sound codecs',
      as: { kind: 'some', options: listOptions(AUDIO_CODECS, codecName) },
    },
    { path: 'audio.sampleRates', label: 'Sample rates', as: { kind: 'numbers', unit: 'kHz', scale: 1000 } },
    {
      path: 'audio.leastChannels',
      label: 'Fewest channels',
      as: { kind: 'one', number: true, options: listOptions(['1', '2']) },
    },
    { path: 'audio.mostChannels', label: 'Most channels', as: numberField('') },
    { path: 'audio.leastBits', label: 'Fewest sound bits', as: optionalNumberField('kb/s', 1000) },
    { path: 'audio.mostPeak', label: 'Highest true peak', as: optionalNumberField('dBTP') },
  ],
  groups: [
    {
      path: 'audio.loudness',
      label: 'Loudness that clips are brought to',
      begins: { target: -14, within: 2 },
      fields: [
        { path: 'target', label: 'Target', as: numberField('LUFS') },
        { path: 'within', label: 'Within', as: numberField('LU') },
      ],
    },
  ],
  refuseFile({ audio: sound }, { audio }) {
    if (!sound) return audio.required ? 'The clip has no sound.' : null;
    const broken = judgeSound(sound, { audio });
    if (broken === 'codec' || broken === 'sample-rate') {
      const rates = joinAlternatives(audio.sampleRates.map((rate) => String(rate / 1000)));
      return `The sound must be ${joinAlternatives(audio.codecs.map(codecName))} at ${rates} kHz.`;
    }
    if (broken === 'too-few') return `The sound is mono; at least ${audio.leastChannels} channels are taken.`;
    return broken === 'too-many'
      ? `The sound has ${sound.channels} channels; at most ${audio.mostChannels} are taken.`
      : null;
  },
});
