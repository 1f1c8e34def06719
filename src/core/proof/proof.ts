import type { AudioFacts, Master } from '../master/master';
import { channelWords, codecName, videoCodecName } from '../master/master';
import type { Proof, ProofFact } from './proof-record';
import type { Borders } from '../picture/borders';
import type { EncodeSettings } from '../render/encode-settings';
import type { RenderPlan } from '../render/plan';
import { bytesLabel } from '../figures/figures';
import { rateLabel } from '../time/frame-rate';

/** Facts of an export as planned, or of its file as read, in the same terms. */
export interface ClipFacts {
  size: string;
  rate: string;
  frames: string;
  video: string;
  colour: string;
  sound: string;
  /** Where a size was to be landed on. */
  bytes?: string;
}

const FACT_NAMES: Record<keyof ClipFacts, string> = {
  size: 'Size',
  rate: 'Frame rate',
  frames: 'Frames',
  video: 'Picture codec',
  colour: 'Colour',
  sound: 'Sound',
  bytes: 'File size',
};

/** How far a file may be off the size that it was to land on, as a share of it. */
const LANDED_WITHIN = 0.03;

const PROFILE_NAMES = { main: 'Main', high: 'High' };
/** Profile of lossless H.264, whatever was chosen (ITU-T H.264, A.2.7). */
const LOSSLESS_PROFILE = 'High 4:4:4';

const soundWords = (codec: string, sampleRate: number, channels: number): string =>
  `${codecName(codec)} ${sampleRate / 1000} kHz ${channelWords(channels)}`;

/** Lists the facts that an export is asked to have; of sound alone nothing but the sound. */
export function toRequestedFacts(plan: RenderPlan, { picture, sound }: EncodeSettings): Partial<ClipFacts> {
  const heard = sound ? soundWords(sound.codec, sound.sampleRate, sound.channels) : 'none';
  if (!picture) return { sound: heard };
  const named = picture.kind === 'lossless' ? LOSSLESS_PROFILE : PROFILE_NAMES[picture.profile];
  const profile = picture.codec === 'avc' ? ` ${named}` : '';
  return {
    size: `${plan.width}×${plan.height}`,
    rate: `${rateLabel(plan.rate)} fps (${plan.rate.num}/${plan.rate.den})`,
    frames: String(plan.frames),
    video: `${codecName(picture.codec)}${profile}`,
    colour: 'bt709, limited range',
    sound: heard,
    ...(picture.bytes > 0 ? { bytes: landedWords(picture.bytes) } : {}),
  };
}

const landedWords = (bytes: number): string =>
  `${bytesLabel(bytes)}, within ${Math.round(100 * LANDED_WITHIN)} %`;

/** The size of a finished file, beside the one that it was to land on. */
const foundBytes = (bytes: number, asked: number): string =>
  Math.abs(bytes / asked - 1) <= LANDED_WITHIN ? landedWords(asked) : bytesLabel(bytes);

/** Lists the facts that a finished file has. @param asked bytes that it was to land on; 0 for none. */
export function toFoundFacts(file: Omit<Master, 'fingerprint' | 'id'>, asked = 0): ClipFacts {
  const { colour } = file;
  return {
    size: `${file.picture.width}×${file.picture.height}`,
    rate: `${rateLabel(file.rate)} fps (${file.rate.num}/${file.rate.den})`,
    frames: String(file.frames),
    video: videoCodecName(file.video.codec, file.video.codecString),
    colour: `${colour.matrix ?? 'unknown'}, ${colour.fullRange === false ? 'limited range' : 'full or unknown range'}`,
    sound: describeFoundSound(file.audio),
    ...(asked > 0 ? { bytes: foundBytes(file.bytes, asked) } : {}),
  };
}

/** Describes the sound of a finished file. */
export const describeFoundSound = (audio: AudioFacts | null): string =>
  audio ? soundWords(audio.codec, audio.sampleRate, audio.channels) : 'none';

/** Compares a finished file with what was asked, fact by fact, and adds what the search for borders showed. */
export function createProof(
  asked: Partial<ClipFacts>,
  found: Partial<ClipFacts>,
  framesSearched: number,
  borders: Borders,
): Proof {
  const facts: ProofFact[] = (Object.keys(FACT_NAMES) as (keyof ClipFacts)[]).flatMap((key) => {
    const wanted = asked[key];
    const is = found[key] ?? 'none';
    return wanted === undefined ? [] : { what: FACT_NAMES[key], asked: wanted, found: is, ok: wanted === is };
  });
  const bare = borders.left + borders.top + borders.right + borders.bottom === 0;
  return { facts, framesSearched, borders, pass: bare && facts.every((fact) => fact.ok) };
}
