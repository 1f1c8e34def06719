import type { Cut } from '../cut/cut';
import { activeCanvas } from '../job/clip';
import { activeClip, onCanvas, onClip, findSource, listSources, type Work } from '../job/job';
import { computeSignature } from '../job/signature';
import { findTarget } from '../outlets/outlets';
import { PLAIN_ENCODING } from '../rate/encoding';
import { estimateBitrate, piecesToTry, trialPieces } from '../rate/trial';
import type { VideoEncodeSettings } from '../render/encode-settings';
import { createRenderPlan, type RenderPlan } from '../render/plan';
import { toSeconds } from '../time/frame-rate';
import { toJobEncodeSettings } from './check';
import type { CheckContext } from './check-input';
import { type CheckSubject, collectWordSources } from './subject-plan';

/** Pieces of a clip to be encoded without their sound, to know how large the whole will be. */
export interface SizeTrial {
  plans: RenderPlan[];
  picture: VideoEncodeSettings;
  /** Video bits a second of the whole clip. @param bytes what each plan came to. */
  bitsOf(bytes: readonly number[]): number;
}

/**
 * Computes the key of everything that the size of the canvas being worked on depends on: two works with one
 * key share a trial.
 * @param advised video bits a second that a trial of rates advises; null where there was none.
 */
export function sizeKey({ edit, masters }: Work, advised: number | null = null): string {
  const { placement } = activeCanvas(activeClip(edit));
  return [computeSignature(edit), placement, advised, ...masters.map(({ fingerprint }) => fingerprint)].join(
    ' ',
  );
}

/** Result of a size trial. */
export interface TriedSize {
  clip: string;
  canvas: string;
  /** As {@link sizeKey} gave it then. */
  key: string;
  /** Video bits a second. */
  bits: number;
}

/**
 * Finds the video bitrate that was measured for a canvas as it is now, in bits per second; null where there
 * was no trial.
 */
export function findTriedSize(
  sizes: readonly TriedSize[],
  subject: CheckSubject,
  advisedOf?: CheckContext['advisedOf'],
): number | null {
  const { work, clip, canvas } = subject;
  const tried = sizes.filter((size) => size.clip === clip.id && size.canvas === canvas.id);
  if (tried.length === 0) return null;
  const key = sizeKey(onCanvas(onClip(work, clip.id), canvas.id), advisedOf?.(subject) ?? null);
  return tried.find((size) => size.key === key)?.bits ?? null;
}

/**
 * Plans the size trial of the canvas that a job is working on; null before its masters were analysed, for
 * sound alone, and for what the server makes, whose encoder is another.
 */
export function sizeTrial(work: Work, known: CheckContext): SizeTrial | null {
  const { sheets, passOf } = known;
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const { picture } = toJobEncodeSettings(work, known);
  if (!picture || (canvas.encoding ?? PLAIN_ENCODING).maker === 'server') return null;
  const bits = new Map(work.masters.map((master) => [master.id, passOf(master.fingerprint)?.bitsBySecond]));
  if (clip.cut.some((range) => !bits.get(range.master))) return null;
  const pieces = trialPieces(
    clip.cut,
    (master) => findSource(work, master).rate,
    (master) => bits.get(master) ?? [],
  );
  const tried = piecesToTry(pieces);
  const sources = listSources(work).map((source) => ({ ...source, audio: null }));
  const words = collectWordSources({ clip, target: findTarget(sheets, canvas) });
  const planWithText = (cut: Cut, text = words.text) =>
    createRenderPlan(canvas, { ...work.edit, ...words, text, cut, sources });
  if (tried.length === pieces.length) {
    // In one go, since the encoder pays for a burst out of what follows.
    const plan = planWithText(clip.cut);
    return { plans: [plan], picture, bitsOf: ([bytes = 0]) => bitRate(bytes, plan) };
  }
  // A card stands still after the last piece alone.
  const shown = words.text && { ...words.text, card: null };
  const plans = tried.map(({ range }) => planWithText([range], shown));
  const triedBits = (bytes: readonly number[]) =>
    tried.map((piece, i) => ({ piece, bits: bitRate(bytes[i] ?? 0, plans[i] as RenderPlan) }));
  return { plans, picture, bitsOf: (bytes) => estimateBitrate(pieces, triedBits(bytes)) };
}

const bitRate = (bytes: number, { frames, rate }: RenderPlan): number =>
  (bytes * 8) / toSeconds(frames, rate);
