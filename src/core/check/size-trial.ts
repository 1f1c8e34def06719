import type { Cut } from '../cut/cut';
import { activeCanvas } from '../job/clip';
import { activeClip, sourceIn, sourcesIn, type Work } from '../job/job';
import { signatureOf } from '../job/signature';
import { bitsByTrial, piecesToTry, trialPieces } from '../rate/trial';
import { planOf, type RenderPlan } from '../render/plan';
import { secondsOf } from '../time/frame-rate';
import { workedOutBitRate } from './check';
import type { Known } from './check-input';

/** Pieces of a clip to be encoded without their sound, to know how large the whole will be. */
export interface SizeTrial {
  plans: RenderPlan[];
  /** Video bits a second that are asked for. */
  videoBits: number;
  /** Video bits a second of the whole clip. @param bytes what each plan came to. */
  bitsOf(bytes: readonly number[]): number;
}

/** What the size of a canvas of a clip depends on: where two works agree, one trial serves both. */
export const sizeKey = ({ edit }: Pick<Work, 'edit'>): string =>
  `${signatureOf(edit)} ${activeCanvas(activeClip(edit)).placement}`;

/** What has to be tried of the canvas that a job is working on; null before its masters were looked at. */
export function sizeTrial(work: Work, { sheets, passOf }: Known): SizeTrial | null {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const bits = new Map(work.masters.map((master) => [master.id, passOf(master.fingerprint)?.bitsBySecond]));
  if (clip.cut.some((range) => !bits.get(range.master))) return null;
  const pieces = trialPieces(
    clip.cut,
    (master) => sourceIn(work, master).rate,
    (master) => bits.get(master) ?? [],
  );
  const tried = piecesToTry(pieces);
  const sources = sourcesIn(work).map((source) => ({ ...source, audio: null }));
  const planFor = (cut: Cut) => planOf(canvas, { ...work.edit, cut, sources });
  const videoBits = clip.videoBits ?? workedOutBitRate(work, sheets).bits;
  if (tried.length === pieces.length) {
    // In one go, since the encoder pays for a burst out of what follows.
    const plan = planFor(clip.cut);
    return { plans: [plan], videoBits, bitsOf: ([bytes = 0]) => bitRate(bytes, plan) };
  }
  const plans = tried.map(({ range }) => planFor([range]));
  const triedBits = (bytes: readonly number[]) =>
    tried.map((piece, i) => ({ piece, bits: bitRate(bytes[i] ?? 0, plans[i] as RenderPlan) }));
  return { plans, videoBits, bitsOf: (bytes) => bitsByTrial(pieces, triedBits(bytes)) };
}

const bitRate = (bytes: number, { frames, rate }: RenderPlan): number =>
  (bytes * 8) / secondsOf(frames, rate);
