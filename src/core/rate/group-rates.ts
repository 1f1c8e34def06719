import { LEAST_VIDEO_BITS } from './bit-rate';

/** What the bits of a picture are held to. */
export interface RateAsked {
  kind: 'constant' | 'variable' | 'quality' | 'size' | 'lossless';
  /** Video bits a second on average, and at most. */
  bits: number;
  mostBits: number;
}

/** How far a group of a constant rate may be off, and a size that is to be landed on: a share of it. */
const CONSTANT_WITHIN = 0.05;
const SIZE_WITHIN = 0.02;
/** A group of a constant rate is asked for a little less than it may take: what is missing is filled. */
const UNDER = 0.96;
/** An encoder is asked for so much more, and so much less, than it is to spend at most. */
const BOLDEST = 4;
const SHYEST = 0.2;
/** A group is made so often at most. */
const MOST_TRIES = 5;
/** Bits that are asked for beyond this bring nothing: the encoder is at the end of its scale. */
const SATURATED = 1.02;

/** What a group was asked for, and what it came to, in bytes. */
interface Try {
  asked: number;
  bytes: number;
}

/** A group to make again, and the video bits a second to ask for. */
export interface Again {
  group: number;
  bits: number;
}

/**
 * Shares the bits of a picture out over its groups, by what those before came to. Encoders spend more or less than they
 * are asked for; what a rate promises is held by asking for other bits, and by making a group again where it must be.
 */
export class GroupRates {
  private readonly tries: Try[][];
  /** What encoders spent of what they were asked for, lately. */
  private spent = 1;

  /** @param seconds of each group. */
  constructor(
    private readonly asked: RateAsked,
    private readonly seconds: readonly number[],
  ) {
    this.tries = seconds.map(() => []);
  }

  /** Video bits a second to ask for a group that was not made yet. */
  bitsFor(group: number): number {
    const { kind, bits } = this.asked;
    if (kind === 'constant') return bits * UNDER;
    if (kind !== 'size') return bits;
    const left = this.budget() - this.bytes();
    const seconds = this.seconds.reduce((sum, length, i) => (this.tries[i]?.length ? sum : sum + length), 0);
    const wanted = (left * 8) / Math.max(seconds, this.seconds[group] ?? 0);
    return bounded(wanted / this.spent, bits);
  }

  /** Takes what a group came to. */
  made(group: number, asked: number, bytes: number): void {
    this.tries[group]?.push({ asked, bytes });
    const spent = (bytes * 8) / ((this.seconds[group] ?? 1) * asked);
    this.spent = 0.5 * this.spent + 0.5 * Math.min(1 / SHYEST, Math.max(1 / BOLDEST, spent));
  }

  /** Groups that have to be made again so that the promise holds; none where it does, or no more can be done. */
  again(): Again[] {
    const { kind, bits, mostBits } = this.asked;
    if (kind === 'quality' || kind === 'lossless') return [];
    const most = kind === 'constant' ? bits * (1 + CONSTANT_WITHIN / 2) : mostBits;
    const over = this.tries.flatMap((tries, group) => {
      const last = tries[tries.length - 1];
      if (!last || tries.length >= MOST_TRIES || this.rateOf(group) <= most) return [];
      const lower = (last.asked * most * UNDER) / this.rateOf(group);
      return lower < LEAST_ASKED ? [] : [{ group, bits: lower }];
    });
    return over.length > 0 || kind !== 'size' ? over : this.nearer();
  }

  /** Bytes that are missing of a group of a constant rate; 0 elsewhere. */
  filling(group: number): number {
    const { kind, bits } = this.asked;
    if (kind !== 'constant') return 0;
    return Math.max(0, Math.floor((bits * (this.seconds[group] ?? 0)) / 8) - this.bytesOf(group));
  }

  /** Groups that bring the whole nearer to its size: those first that can give or take most. */
  private nearer(): Again[] {
    const budget = this.budget();
    let off = this.bytes() - budget;
    if (Math.abs(off) <= SIZE_WITHIN * budget) return [];
    const can = this.seconds
      .map((_, group) => group)
      .filter(
        (group) => (this.tries[group]?.length ?? 0) < MOST_TRIES && (off > 0 || !this.isSaturated(group)),
      )
      .sort((a, b) => this.bytesOf(b) - this.bytesOf(a));
    const again: Again[] = [];
    const room = can.reduce((sum, group) => sum + this.bytesOf(group), 0);
    for (const group of can) {
      if (off > 0 ? off <= (SIZE_WITHIN / 2) * budget : off >= (-SIZE_WITHIN / 2) * budget) break;
      const own = this.bytesOf(group);
      // Each gives or takes its share of what is off, a quarter of itself at least.
      const share = Math.min(
        Math.max(Math.abs(off) * (own / room) * 2, own * 0.25),
        Math.abs(off),
        own * 0.75,
      );
      const factor = off > 0 ? (own - share) / own : (own + share) / own;
      again.push({ group, bits: bounded((this.lastOf(group)?.asked ?? 0) * factor, this.asked.bits) });
      off -= Math.sign(off) * share;
    }
    return again;
  }

  /** Whether a group took no more although it was asked for more. */
  private isSaturated(group: number): boolean {
    const tries = this.tries[group] ?? [];
    const [before, last] = tries.slice(-2);
    return !!before && !!last && last.asked > before.asked && last.bytes < before.bytes * SATURATED;
  }

  private budget(): number {
    return (this.asked.bits * this.seconds.reduce((sum, length) => sum + length, 0)) / 8;
  }

  /** Of all that was made so far. */
  bytes(): number {
    return this.tries.reduce((sum, _, group) => sum + this.bytesOf(group), 0);
  }

  private lastOf(group: number): Try | undefined {
    return this.tries[group]?.[(this.tries[group]?.length ?? 0) - 1];
  }

  private bytesOf(group: number): number {
    return this.lastOf(group)?.bytes ?? 0;
  }

  private rateOf(group: number): number {
    return (this.bytesOf(group) * 8) / (this.seconds[group] ?? 1);
  }
}

/** No encoder is asked for less. */
const LEAST_ASKED = LEAST_VIDEO_BITS / 10;

const bounded = (bits: number, wanted: number): number =>
  Math.max(LEAST_ASKED, wanted * SHYEST, Math.min(wanted * BOLDEST, bits));
