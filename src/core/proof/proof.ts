import type { Master } from '../master/master';
import { channelWords, codecName, videoCodecName } from '../master/master';
import type { Proof, ProofFact } from './proof-record';
import type { Borders } from '../picture/borders';
import type { RenderPlan } from '../render/plan';
import { exportSound } from '../render/export-sound';
import { rateLabel } from '../time/frame-rate';

/** What was asked of an export, and what its file really is, in the same terms. */
export interface ClipFacts {
  size: string;
  rate: string;
  frames: string;
  video: string;
  colour: string;
  sound: string;
}

const FACT_NAMES: Record<keyof ClipFacts, string> = {
  size: 'Size',
  rate: 'Frame rate',
  frames: 'Frames',
  video: 'Picture codec',
  colour: 'Colour',
  sound: 'Sound',
};

const soundWords = (codec: string, sampleRate: number, channels: number): string =>
  `${codecName(codec)} ${sampleRate / 1000} kHz ${channelWords(channels)}`;

/** What an export of a plan is asked to be. */
export function askedFacts(plan: RenderPlan): ClipFacts {
  const sound = exportSound(plan);
  return {
    size: `${plan.width}×${plan.height}`,
    rate: `${rateLabel(plan.rate)} fps (${plan.rate.num}/${plan.rate.den})`,
    frames: String(plan.frames),
    video: 'H.264 High',
    colour: 'bt709, limited range',
    sound: sound ? soundWords('aac', sound.sampleRate, sound.channels) : 'none',
  };
}

/** What a finished file was found to be, from its own facts. */
export function foundFacts(file: Omit<Master, 'fingerprint' | 'id'>): ClipFacts {
  const { audio, colour } = file;
  return {
    size: `${file.picture.width}×${file.picture.height}`,
    rate: `${rateLabel(file.rate)} fps (${file.rate.num}/${file.rate.den})`,
    frames: String(file.frames),
    video: videoCodecName(file.video.codec, file.video.codecString),
    colour: `${colour.matrix ?? 'unknown'}, ${colour.fullRange === false ? 'limited range' : 'full or unknown range'}`,
    sound: audio ? soundWords(audio.codec, audio.sampleRate, audio.channels) : 'none',
  };
}

/** Compares a finished file with what was asked, fact by fact, and adds what the search for borders showed. */
export function proofOf(asked: ClipFacts, found: ClipFacts, framesSearched: number, borders: Borders): Proof {
  const facts: ProofFact[] = (Object.keys(FACT_NAMES) as (keyof ClipFacts)[]).map((key) => ({
    what: FACT_NAMES[key],
    asked: asked[key],
    found: found[key],
    ok: asked[key] === found[key],
  }));
  const bare = borders.left + borders.top + borders.right + borders.bottom === 0;
  return { facts, framesSearched, borders, pass: bare && facts.every((fact) => fact.ok) };
}
