import { z } from 'zod';
import { boundedNumber, boundedCount, MAX_SECONDS } from '../figures/bounded';

/** A part of a master in which somebody speaks, in seconds from its first frame, half-open. */
const spokenSchema = z.object({
  from: boundedNumber(0, MAX_SECONDS),
  to: boundedNumber(0, MAX_SECONDS).positive(),
});
export type SpokenSpan = z.infer<typeof spokenSchema>;

/** Where somebody speaks in a master. Stored beside its proxy. */
export const speechSchema = z.object({
  schemaVersion: z.literal(1),
  fingerprint: z.string(),
  /** The track that was listened to. */
  soundTrack: boundedCount(),
  /** In their order; none touches another. */
  spans: z.array(spokenSchema),
});
export type Speech = z.infer<typeof speechSchema>;

/**
 * Input of the voice detector: mono at this rate in hertz, so many samples per step after so many of those
 * before.
 */
export const VOICE = { rate: 16_000, step: 512, before: 64 } as const;

/** Speech begins where a step is this likely to be speech, and ends where so many in a row are less likely than that. */
const BEGINS = 0.5;
const ENDS = { below: 0.35, steps: 8 };
/** Minimum number of steps of speech: anything shorter is a click or a knock, about a tenth of a second. */
const MIN_STEPS = 3;

/** Joins the detector's steps to spans. */
export class SpokenSpans {
  private readonly spans: SpokenSpan[] = [];
  private steps = 0;
  /** Steps at which speech began, and since when it has been unlikely; null where neither is so. */
  private began: number | null = null;
  private quietSince: number | null = null;

  /** Takes the next step. @param likely 0…1. */
  push(likely: number): void {
    if (likely >= BEGINS) this.began ??= this.steps;
    if (likely >= ENDS.below) this.quietSince = null;
    else if (this.began !== null) this.quietSince ??= this.steps;
    this.steps += 1;
    if (this.quietSince !== null && this.steps - this.quietSince >= ENDS.steps) this.end(this.quietSince);
  }

  /** Takes no more. @returns the spans. */
  finish(): SpokenSpan[] {
    this.end(this.quietSince ?? this.steps);
    return this.spans;
  }

  private end(at: number): void {
    const seconds = (step: number) => (step * VOICE.step) / VOICE.rate;
    if (this.began !== null && at - this.began >= MIN_STEPS)
      this.spans.push({ from: seconds(this.began), to: seconds(at) });
    this.began = null;
    this.quietSince = null;
  }
}

/** The share of a part of a master in which somebody speaks, 0…1. @param from and to in seconds, not the same. */
export function spokenShare({ spans }: Pick<Speech, 'spans'>, from: number, to: number): number {
  const spoken = spans.reduce(
    (sum, span) => sum + Math.max(0, Math.min(to, span.to) - Math.max(from, span.from)),
    0,
  );
  return spoken / (to - from);
}
