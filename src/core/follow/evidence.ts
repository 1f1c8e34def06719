import { z } from 'zod';
import { boundedNumber, frameCount, frameIndex, measure } from '../figures/bounded';
import { type PictureRect, pictureRectSchema } from '../picture/size';

/** Kinds of subjects, the most trusted first. */
const SUBJECT_KINDS = ['face', 'person', 'animal', 'vehicle', 'thing', 'motion', 'drawn'] as const;
export type SubjectKind = (typeof SUBJECT_KINDS)[number];

/** A subject's kind by its class number in the COCO data set: 80 classes in its order, from 0. */
export function toSubjectKind(classNumber: number): SubjectKind {
  if (classNumber === 0) return 'person';
  if (classNumber <= 8) return 'vehicle';
  return classNumber >= 14 && classNumber <= 23 ? 'animal' : 'thing';
}

/** Appearance of a subject: mean luma, Cb and Cr of its upper and of its lower half, 0…255 each. */
const lookSchema = z.array(measure()).length(6);
export type SubjectLook = z.infer<typeof lookSchema>;

/** Something that was seen in one frame. */
export interface Sighting {
  kind: SubjectKind;
  /** 0…1. */
  confidence: number;
  /** 0…1 of the upright picture. */
  box: PictureRect;
  /** Null where it was not measured. */
  look: SubjectLook | null;
}

/** Sightings in one frame. */
export interface Sample {
  /** At the master's own rate. */
  frame: number;
  /** True when detectors ran: they take every other sample, movement all. */
  detected: boolean;
  seen: Sighting[];
}

/** Track of one subject through a shot. */
export const trackSchema = z.object({
  kind: z.enum(SUBJECT_KINDS),
  /** In the order of their frames, from where it was first seen to where it was last seen. */
  points: z.array(
    z.object({
      frame: frameIndex(),
      /** Smoothed; 0…1 of the upright picture. */
      box: pictureRectSchema,
      /** 0…1; 0 where it was not seen and is only held. */
      confidence: boundedNumber(0, 1),
    }),
  ),
  /** Null where it was not measured. */
  look: lookSchema.nullable(),
});
export type Track = z.infer<typeof trackSchema>;
export type TrackPoint = Track['points'][number];

/** Frames of a master that were looked at, half-open, with what was found there. */
export const lookedSpanSchema = z.object({
  in: frameIndex(),
  out: frameCount(),
  tracks: z.array(trackSchema),
  /** Where most of what moved was, 0…1 of the upright picture; null where nothing moved. */
  busy: pictureRectSchema.nullable(),
});
export type LookedSpan = z.infer<typeof lookedSpanSchema>;

/** Everything that was looked at of a master for following. Stored beside its proxy. */
export const evidenceSchema = z.object({
  schemaVersion: z.literal(1),
  fingerprint: z.string(),
  /** In the order of their frames; none overlaps another. */
  spans: z.array(lookedSpanSchema),
  /** Tracks that were followed from boxes that a person drew. */
  drawn: z.array(trackSchema),
});
export type Evidence = z.infer<typeof evidenceSchema>;

export const createEvidence = (fingerprint: string): Evidence => ({
  ...{ schemaVersion: 1, fingerprint, spans: [], drawn: [] },
});

/** Samples a second, and how many of them detectors look at. */
const SAMPLES_A_SECOND = 10;
export const DETECT_EVERY = 2;

/** Frames from one sample to the next. @param rate frames a second. */
export const sampleStep = (rate: number): number => Math.max(1, Math.round(rate / SAMPLES_A_SECOND));

/** Parts of a range of frames that were not looked at yet. */
export function unseenParts(spans: readonly LookedSpan[], range: { in: number; out: number }) {
  const parts: { in: number; out: number }[] = [];
  let from = range.in;
  for (const span of [...spans].sort((a, b) => a.in - b.in)) {
    if (span.out <= from || span.in >= range.out) continue;
    if (span.in > from) parts.push({ in: from, out: span.in });
    from = Math.max(from, span.out);
  }
  if (from < range.out) parts.push({ in: from, out: range.out });
  return parts;
}

/** Evidence with more of it. @throws RangeError for a span that was looked at already. */
export function withSpan(evidence: Evidence, span: LookedSpan): Evidence {
  const overlaps = evidence.spans.some((known) => known.in < span.out && known.out > span.in);
  if (overlaps) throw new RangeError(`frames ${span.in} to ${span.out} were looked at already`);
  return { ...evidence, spans: [...evidence.spans, span].sort((a, b) => a.in - b.in) };
}

/** So many boxes that were drawn in one shot are kept, the latest. */
const MAX_DRAWN = 3;

/** Evidence with what was followed from a drawn box. @param range of its shot, at the master's own rate. */
export function withDrawn(evidence: Evidence, track: Track, range: { in: number; out: number }): Evidence {
  const isInside = ({ points }: Track) => points.some(({ frame }) => frame >= range.in && frame < range.out);
  const before = evidence.drawn.filter(isInside).slice(1 - MAX_DRAWN);
  return {
    ...evidence,
    drawn: [...evidence.drawn.filter((drawn) => !isInside(drawn) || before.includes(drawn)), track],
  };
}

/** A subject that is there for less than this share of a shot does not count. */
const MIN_SHARE = 0.3;

/** The kinds of subjects with a name that are in a range of frames for a good part of it. */
export function listSubjectKinds(
  { spans }: Pick<Evidence, 'spans'>,
  range: { in: number; out: number },
): SubjectKind[] {
  const tracks = spans.flatMap((span) => span.tracks);
  return SUBJECT_KINDS.filter((kind) => kind !== 'motion' && kind !== 'drawn').filter((kind) =>
    tracks.some(({ kind: own, points }) => {
      const [first, last] = [points[0]?.frame ?? 0, points[points.length - 1]?.frame ?? 0];
      const there = Math.min(range.out, last) - Math.max(range.in, first);
      return own === kind && there >= MIN_SHARE * (range.out - range.in);
    }),
  );
}
