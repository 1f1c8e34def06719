import { sum } from '../figures/sum';
import { MIN_VIDEO_BITRATE } from './bit-rate';

/** Target and maximum of a video's bitrate. */
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
const MAX_TRIES = 5;
/** How much of a change of what is asked an encoder follows, as the power of it; one that follows less is at its end. */
const FOLLOWS = { least: 0.2, most: 2 };
/** Asking for so little else changes nothing. */
const SAME = 0.01;

/** Attempt at a group: its requested bitrate and its bytes. */
interface Try {
  asked: number;
  bytes: number;
}

/** A group to make again, and the video bits a second to ask for. */
export interface GroupRetry {
  group: number;
  bits: number;
}

/** The same, and the bytes that it is to come to. */
interface BitrateChange extends GroupRetry {
  bytes: number;
}

/**
 * Shares the bits of a picture out over its groups, by what those before came to. Encoders spend more or less than they
 * are asked for; what a rate promises is held by asking for other bits, and by making a group again where it must be.
 */
export class GroupRates {
  private readonly tries: Try[][];
  /** Ratio of actual to requested bits of recent groups. */
  private spent = 1;
  private spared = 0;
  /** Bytes that groups are made again for. */
  private waiting = new Map<number, number>();
  /** Bytes of the whole before groups were made again last, and what they were to become. */
  private round = { before: 0, after: 0 };

  /** @param seconds of each group. */
  constructor(
    private readonly asked: RateAsked,
    private readonly seconds: readonly number[],
  ) {
    this.tries = seconds.map(() => []);
  }

  /** Video bits a second to ask for a group that was not made yet. */
  computeBits(group: number): number {
    const { kind, bits } = this.asked;
    if (kind === 'constant') return (bits * UNDER) / Math.max(1, this.spent);
    if (kind !== 'size') return bits;
    const wanted = ((this.budget() - this.bytes()) * 8) / Math.max(this.unmade(), this.seconds[group] ?? 0);
    return boundBits(wanted / this.spent, bits);
  }

  /** Takes what a group came to. */
  made(group: number, asked: number, bytes: number): void {
    this.tries[group]?.push({ asked, bytes });
    this.waiting.delete(group);
    const spent = (bytes * 8) / ((this.seconds[group] ?? 1) * asked);
    this.spent = 0.5 * this.spent + 0.5 * Math.min(1 / SHYEST, Math.max(1 / BOLDEST, spent));
  }

  /** Gives a size that is to be landed on so many bytes more, which something else of the file did not take. */
  spare(bytes: number): void {
    this.spared = bytes;
  }

  /** Groups that have to be made again so that the promise holds; none where it does, or no more can be done. */
  again(): GroupRetry[] {
    const over = this.isOpen ? [] : this.over();
    const all = over.length > 0 || this.asked.kind !== 'size' || this.wasInVain() ? over : this.nearer();
    this.waiting = new Map(all.map(({ group, bytes }) => [group, bytes]));
    this.round = { before: this.bytes(), after: this.projected() };
    return all.map(({ group, bits }) => ({ group, bits }));
  }

  /** Seconds that will have to be made again besides those that wait for it, by what was made so far. */
  foreseen(): number {
    if (this.isOpen) return 0;
    const long = (changes: readonly BitrateChange[]): number =>
      sum(changes.map(({ group }) => (this.waiting.has(group) ? 0 : (this.seconds[group] ?? 0))));
    if (this.asked.kind === 'size') return long(this.nearer());
    const over = long(this.over());
    const unmade = this.unmade();
    const made = sum(this.seconds) - unmade;
    return over + (made > 0 ? (over / made) * unmade : 0);
  }

  /** Bytes that are missing of a group of a constant rate; 0 elsewhere. */
  filling(group: number): number {
    const { kind, bits } = this.asked;
    if (kind !== 'constant') return 0;
    return Math.max(0, Math.floor((bits * (this.seconds[group] ?? 0)) / 8) - this.countBytes(group));
  }

  /** Of all that was made so far. */
  bytes(): number {
    return sum(this.tries.map((_, group) => this.countBytes(group)));
  }

  /** True when no number of bits is promised. */
  private get isOpen(): boolean {
    return this.asked.kind === 'quality' || this.asked.kind === 'lossless';
  }

  /** Groups over the greatest rate that can be made smaller. */
  private over(): BitrateChange[] {
    const { kind, bits, mostBits } = this.asked;
    const most = kind === 'constant' ? bits * (1 + CONSTANT_WITHIN / 2) : mostBits;
    return this.seconds.flatMap((seconds, group) => {
      const bytes = (most * seconds) / 8;
      return this.countBytes(group) > bytes ? this.changed(group, bytes * UNDER) : [];
    });
  }

  /** Groups that bring the whole nearer to its size: those first that can give or take most. */
  private nearer(): BitrateChange[] {
    const budget = this.budget();
    let off = this.projected() - budget;
    if (Math.abs(off) <= SIZE_WITHIN * budget) return [];
    const can = this.seconds
      .map((_, group) => group)
      .filter((group) => this.changed(group, this.countBytes(group) * (off > 0 ? 0.5 : 2)).length > 0)
      .sort((a, b) => this.countBytes(b) - this.countBytes(a));
    const room = sum(can.map((group) => this.countBytes(group)));
    const changes: BitrateChange[] = [];
    for (const group of can) {
      if (off > 0 ? off <= (SIZE_WITHIN / 2) * budget : off >= (-SIZE_WITHIN / 2) * budget) break;
      const own = this.countBytes(group);
      // Each gives or takes its share of what is off, a quarter of itself at least.
      const share = Math.min(
        Math.max(Math.abs(off) * (own / room) * 2, own * 0.25),
        Math.abs(off),
        own * 0.75,
      );
      changes.push(...this.changed(group, own - Math.sign(off) * share));
      off -= Math.sign(off) * share;
    }
    return changes;
  }

  /**
   * Tells whether encoding groups again brought next to nothing: the encoder is at its limit for all of them.
   */
  private wasInVain(): boolean {
    const { before, after } = this.round;
    return after !== before && (this.bytes() - before) / (after - before) < FOLLOWS.least;
  }

  /**
   * Projects the size of the whole: groups that are not encoded yet are estimated by the recent ratio of
   * actual to requested bits.
   */
  private projected(): number {
    const known = this.seconds.map((_, group) => this.waiting.get(group) ?? this.countBytes(group));
    const next = this.tries.findIndex((tries) => tries.length === 0);
    return sum(known) + (next < 0 ? 0 : (this.computeBits(next) * this.spent * this.unmade()) / 8);
  }

  /**
   * Chooses the bitrate with which a group comes to so many bytes; none where it was tried often, or reacts
   * no more.
   */
  private changed(group: number, bytes: number): BitrateChange[] {
    const tries = this.tries[group] ?? [];
    const [last, before] = tries.slice(-2).reverse();
    if (!last || tries.length >= MAX_TRIES) return [];
    const follows = before ? computeResponse(before, last) : 1;
    const isOnward = before && (last.asked - before.asked) * (bytes - last.bytes) > 0;
    if (isOnward && follows < FOLLOWS.least) return [];
    const power = Math.min(FOLLOWS.most, Math.max(FOLLOWS.least, follows));
    const bits = boundBits(last.asked * (bytes / last.bytes) ** (1 / power), this.asked.bits);
    return Math.abs(bits / last.asked - 1) < SAME ? [] : [{ group, bits, bytes }];
  }

  /** Computes the bytes that a size leaves to all groups: no more than the maximum rate comes to. */
  private budget(): number {
    const { bits, mostBits } = this.asked;
    const seconds = sum(this.seconds);
    return Math.min((bits * seconds) / 8 + this.spared, (mostBits * seconds) / 8);
  }

  /** Seconds of groups that were not made yet. */
  private unmade(): number {
    return sum(this.seconds.filter((_, group) => !this.tries[group]?.length));
  }

  private findLastTry(group: number): Try | undefined {
    return this.tries[group]?.[(this.tries[group]?.length ?? 0) - 1];
  }

  private countBytes(group: number): number {
    return this.findLastTry(group)?.bytes ?? 0;
  }
}

/** The power by which what came followed what was asked for: 1 where it changed as much. */
const computeResponse = (before: Try, last: Try): number =>
  Math.log(last.bytes / before.bytes) / Math.log(last.asked / before.asked);

/** No encoder is asked for less. */
const MIN_ASKED = MIN_VIDEO_BITRATE / 10;

const boundBits = (bits: number, wanted: number): number =>
  Math.max(MIN_ASKED, wanted * SHYEST, Math.min(wanted * BOLDEST, bits));
