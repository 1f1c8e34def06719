import { z } from 'zod';
import {
  bitrate,
  boundedInt,
  boundedNumber,
  frameCount,
  frameIndex,
  measure,
  seconds,
} from '../figures/bounded';
import { activeCanvas } from '../job/clip';
import { activeClip, findSource, listSources, type Work } from '../job/job';
import { computeSignature } from '../job/signature';
import { shortHash } from '../figures/short-hash';
import { findTarget } from '../outlets/outlets';
import type { Placement } from '../outlets/placement';
import type { Sheets } from '../outlets/rule-sheet';
import { MIN_VIDEO_BITRATE, MAX_VIDEO_BITRATE } from '../rate/bit-rate';
import { PLAIN_ENCODING } from '../rate/encoding';
import { findLevel } from '../rate/level';
import { type TrialPiece, trialPieces } from '../rate/trial';
import { hasOpenSize, type VideoEncodeSettings } from '../render/encode-settings';
import { createRenderPlan, type RenderPlan } from '../render/plan';
import { toJobEncodeSettings } from '../check/check';
import type { CheckContext } from '../check/check-input';
import { collectWordSources } from '../check/subject-plan';
import type { AnalysisLookup } from '../check/master-analysis';

/** Roles of the pieces of a clip that are tried. */
const PIECE_ROLES = ['hardest', 'typical', 'easiest'] as const;
type PieceRole = (typeof PIECE_ROLES)[number];

/** Two seconds of a clip that are tried for all of it. */
const pieceSchema = z.object({
  role: z.enum(PIECE_ROLES),
  range: z.object({
    master: z.string(),
    in: frameIndex(),
    out: frameCount(),
  }),
  /** How much of the clip is like it. */
  weight: boundedNumber(0, 1),
});
export type ClipPiece = z.infer<typeof pieceSchema>;

const bits = boundedInt(1, MAX_VIDEO_BITRATE);
const renditionSchema = z.object({
  width: boundedInt(16, 7680),
  height: boundedInt(16, 7680),
  bits: boundedInt(1, 200e6),
});
/** Rendition that an outlet compresses a clip to. */
export type Rendition = z.infer<typeof renditionSchema>;

/** A trial of bit rates: pieces are made at each, compressed once more as the outlet does, and looked at. */
export const trialOrderSchema = z.object({
  pieces: z.array(pieceSchema).min(1).max(PIECE_ROLES.length),
  /** Video bits a second of the clip, rising. */
  rates: z.array(bits).min(2).max(12),
  rung: renditionSchema,
});
export type TrialOrder = z.infer<typeof trialOrderSchema>;

/** Rates that are tried. */
const TRIED = 6;
/** They begin at this share of what the outlet keeps, and end at this many times of it. */
const FROM = 0.5;
const TO = 5;
/** Where the master itself, or a cap of the outlet, ends them earlier, they still span so much. */
const MIN_SPAN = 3;
/**
 * Minimum factor between the rendition and the highest rate, from which the rendition's own rate is one of
 * those tried.
 */
const MIN_ABOVE = 1.5;

/**
 * Plans the rate trial of the canvas that a job works on; null before its masters were analysed, for sound
 * alone, where no bitrate is asked for, and where its outlet does not state its renditions.
 */
export function trialOrder(
  work: Work,
  { sheets, passOf }: Pick<CheckContext, 'sheets' | 'passOf'>,
): TrialOrder | null {
  const { placement } = findTarget(sheets, activeCanvas(activeClip(work.edit)));
  const { picture } = toJobEncodeSettings(work, { sheets });
  const rung = findRendition(placement, activeCanvas(activeClip(work.edit)));
  const pieces = choosePieces(work, passOf);
  if (!picture || !rung || !pieces || hasOpenSize(picture)) return null;
  const used = new Set(activeClip(work.edit).cut.map(({ master }) => master));
  const best = Math.max(...[...used].map((master) => findSource(work, master).video.bits));
  return { pieces: chosen(pieces), rates: chooseRates(rung, placement, best), rung };
}

/**
 * Finds the rendition that a viewer on a good line gets: the largest that is no larger than the canvas, or
 * else the smallest.
 */
export function findRendition(
  { ladder }: Placement,
  canvas: { width: number; height: number },
): Rendition | null {
  const fits = ladder.find(({ width, height }) => width * height <= canvas.width * canvas.height);
  return fits ?? ladder[ladder.length - 1] ?? null;
}

function choosePieces({ edit, masters }: Work, passOf: AnalysisLookup): TrialPiece[] | null {
  const { cut } = activeClip(edit);
  const bits = new Map(masters.map(({ id, fingerprint }) => [id, passOf(fingerprint)?.bitsBySecond]));
  if (cut.some(({ master }) => !bits.get(master))) return null;
  const getRate = (master: string) => findSource({ edit, masters }, master).rate;
  const pieces = trialPieces(cut, getRate, (master) => bits.get(master) ?? []);
  return pieces.length > 0 ? pieces : null;
}

/** The hardest piece, the easiest, and the one in the middle; fewer of a clip that has fewer. */
function chosen(pieces: readonly TrialPiece[]): ClipPiece[] {
  const sorted = [...pieces].sort((a, b) => b.hardness - a.hardness);
  const places: [PieceRole, number][] = [
    ['hardest', 0],
    ['typical', Math.floor((sorted.length - 1) / 2)],
    ['easiest', sorted.length - 1],
  ];
  const picked = places
    .filter(([, place], i) => places.findIndex(([, other]) => other === place) === i)
    .map(([role, place]) => ({ role, piece: sorted[place] as TrialPiece }));
  const weights = computeWeights(
    pieces,
    picked.map(({ piece }) => piece.hardness),
  );
  return picked.map(({ role, piece }, n) => ({ role, range: piece.range, weight: weights[n] as number }));
}

/**
 * How much of a clip is like each of some pieces: one that lies between two in hardness is like both, the nearer the more.
 * @param hardness of the pieces, falling.
 */
function computeWeights(pieces: readonly TrialPiece[], hardness: readonly number[]): number[] {
  const weights = hardness.map(() => 0);
  const add = (n: number, seconds: number) => (weights[n] = (weights[n] as number) + seconds);
  for (const { hardness: own, seconds } of pieces) {
    const below = Math.max(
      1,
      hardness.findIndex((other) => other <= own),
    );
    const [high, low] = [hardness[below - 1], hardness[below]];
    const share = high === undefined || low === undefined || high === low ? 1 : (own - low) / (high - low);
    add(below - 1, seconds * share);
    if (share < 1) add(below, seconds * (1 - share));
  }
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  return weights.map((weight) => weight / whole);
}

/** Rates in even proportions: one below what the outlet keeps, that itself, and those above. */
function chooseRates(rung: Rendition, { video: { mostBits } }: Placement, best: number): number[] {
  const cap = Math.min(MAX_VIDEO_BITRATE, mostBits ?? Infinity, best > 0 ? best : Infinity);
  const to = Math.max(MIN_VIDEO_BITRATE * MIN_SPAN, Math.min(cap, TO * rung.bits));
  const from = Math.max(MIN_VIDEO_BITRATE, Math.min(FROM * rung.bits, to / MIN_SPAN));
  const even = (count: number, first: number) =>
    Array.from({ length: count }, (_, n) => first * (to / first) ** (n / (count - 1)));
  const rates =
    rung.bits > from && rung.bits * MIN_ABOVE <= to
      ? [from, ...even(TRIED - 1, rung.bits)]
      : even(TRIED, from);
  return rates.map((rate) => Math.round(rate / 1e5) * 1e5);
}

/** The plans of an order's pieces, in their order: pictures alone, and no end card. */
export function trialPlans(work: Work, sheets: Sheets, { pieces }: Pick<TrialOrder, 'pieces'>): RenderPlan[] {
  const clip = activeClip(work.edit);
  const canvas = activeCanvas(clip);
  const words = collectWordSources({ clip, target: findTarget(sheets, canvas) });
  const text = words.text && { ...words.text, card: null };
  const sources = listSources(work).map((source) => ({ ...source, audio: null }));
  return pieces.map(({ range }) =>
    createRenderPlan(canvas, { ...work.edit, ...words, text, cut: [range], sources }),
  );
}

/**
 * Computes the key of everything that a trial of the canvas that a job works on depends on: the clip and the
 * encoding without its bitrate, and what its rule sheet says of it.
 */
export function trialKey({ edit, masters }: Work, sheets: Sheets): string {
  const canvas = activeCanvas(activeClip(edit));
  const { rate, ...encoding } = canvas.encoding ?? PLAIN_ENCODING;
  const { placement } = findTarget(sheets, canvas);
  const { ladder, video, mostBytes } = placement;
  const isConstant = rate.kind === 'constant';
  return [
    computeSignature(edit, [encoding, isConstant]),
    shortHash([canvas.placement, ladder, video, mostBytes]),
    ...masters.map(({ fingerprint }) => fingerprint.slice(0, 16)),
  ].join(' ');
}

/** Score that a viewer would get at one rate. */
const scoreSchema = z.object({
  /** Structural similarity of luma to the plan's own frames, 1 for the same. */
  ssim: measure(),
  /** In decibels, at most 100. */
  psnr: measure(),
  /** {@link scoreSchema.ssim} where fine detail moves fast; null where none does. */
  moving: measure().nullable(),
  /** Banding that was not there before; 0 for none, about 5 where it annoys. */
  banding: measure(),
});
export type Score = z.infer<typeof scoreSchema>;

/** The worst frame of those that were looked at. */
const worstSchema = z.object({
  role: z.enum(PIECE_ROLES),
  /** Of its piece. */
  frame: frameIndex(),
  ssim: measure(),
});

const pointSchema = scoreSchema.extend({
  /** Video bits a second that were asked for, and what a clip comes to. */
  bits: bitrate(),
  came: bitrate(),
  worst: worstSchema,
});
export type TrialPoint = z.infer<typeof pointSchema>;

/** Who compressed the pieces once more, as the outlet does. */
const COMPRESSORS = ['browser', 'ffmpeg'] as const;

/** Result of a trial. */
export const trialResultSchema = z.object({
  /** By rising rate. */
  points: z.array(pointSchema).min(2),
  compressor: z.enum(COMPRESSORS),
  /** How long it took, in seconds. */
  took: seconds(),
});
export type TrialResult = z.infer<typeof trialResultSchema>;

/** Result of a trial, as it is kept. */
export const rateTrialSchema = trialResultSchema.extend({
  schemaVersion: z.literal(1),
  clip: z.string(),
  canvas: z.string(),
  /** As {@link trialKey} gave it then. */
  key: z.string(),
  maker: z.enum(['browser', 'server']),
  rung: renditionSchema,
});
export type RateTrial = z.infer<typeof rateTrialSchema>;

/** How a piece is encoded at a rate. @param bits video bits a second. */
export function toPieceSettings(
  picture: VideoEncodeSettings,
  plan: RenderPlan,
  bits: number,
): VideoEncodeSettings {
  const isConstant = picture.kind === 'constant';
  return {
    ...picture,
    kind: isConstant ? 'constant' : 'variable',
    bits,
    mostBits: isConstant ? bits : 2 * bits,
    level: picture.codec === 'avc' ? findLevel(plan, plan.rate, bits) : null,
  };
}

/**
 * Makes the encode settings of an outlet's rendition of a piece: smaller where its picture is, plain H.264,
 * in groups as long as the clip's.
 */
export function toRenditionSettings(
  rung: Rendition,
  plan: RenderPlan,
  { keyFrames }: VideoEncodeSettings,
): { plan: RenderPlan; picture: VideoEncodeSettings } {
  const { width, height, bits } = rung;
  return {
    plan: { ...plan, width, height },
    picture: {
      ...{ codec: 'avc', kind: 'variable', profile: 'high', keyFrames },
      ...{ bits, mostBits: Math.round(1.5 * bits), bytes: 0, quantiser: 0 },
      ...{ betweenFrames: 2, twoPasses: false, level: findLevel(rung, plan.rate, bits) },
    },
  };
}
