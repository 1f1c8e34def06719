import type { Axis } from './axes';
import { axisFilter, clampStarts, type AxisFilter, type SampleReach } from './lanczos';
import type { KernelMemory } from './memory';

/** Outputs across come in fours, each with the pair of samples that two taps need. */
const FOUR = 4;
/** Samples that one load brings. */
const LOAD = 16;
/** An index for the module's shuffle that gives zero. */
const NOTHING = 0x80;

/** Where the filter of a plane's columns lies in the kernel's memory, for every four outputs. */
interface AcrossTables {
  key: string;
  /** The first source sample of four outputs. */
  starts: number;
  /** Near: which of the sixteen samples from there each output's first two taps take. Far: where each output starts. */
  picks: number;
  /** Of each pair of taps, for four outputs. */
  weights: number;
  /** Pairs of taps of an output. */
  pairs: number;
  /** True when sixteen samples hold the first taps of any four outputs. */
  near: boolean;
}

/** Where the filter of a plane's rows lies: the first row of each output, and the weights of its taps. */
interface DownTables {
  key: string;
  starts: number;
  weights: number;
  pairs: number;
}

/** The filters of axes as the module reads them: each stays where it lies until its slot has another. */
export class FilterTables {
  private readonly knownAcross = new Map<string, AcrossTables>();
  private readonly knownDown = new Map<string, DownTables>();

  constructor(private readonly memory: KernelMemory) {}

  /** Tables across; the padding up to `width8` samples, a multiple of eight, has zero taps. */
  across(slot: string, count: number, width8: number, axis: Axis, reach: SampleReach): AcrossTables {
    const key = toKey(count, axis, reach);
    const known = this.knownAcross.get(slot);
    if (known?.key === key) return known;
    const filter = getFilter(count, axis, reach);
    const pairs = filter.taps / 2;
    const fours = width8 / FOUR;
    const findStart = (k: number) => filter.starts[Math.min(k, count - 1)] as number;
    const near = Array.from({ length: fours }, (_, q) => findStart(q * FOUR + 3) - findStart(q * FOUR)).every(
      (apart) => apart + 1 < LOAD,
    );
    const starts = new Int32Array(fours);
    const picks = new Uint8Array(width8 * 4);
    const weights = new Int16Array(width8 * filter.taps);
    for (let k = 0; k < width8; k++) {
      const q = Math.floor(k / FOUR);
      const lane = k % FOUR;
      starts[q] = findStart(q * FOUR);
      const apart = findStart(k) - (starts[q] as number);
      if (near) picks.set([apart, NOTHING, apart + 1, NOTHING], k * 4);
      else new DataView(picks.buffer).setInt32(k * 4, apart, true);
      if (k >= count) continue;
      for (let t = 0; t < filter.taps; t++) {
        const at = (q * pairs + (t >> 1)) * 2 * FOUR + lane * 2 + (t & 1);
        weights[at] = filter.weights[k * filter.taps + t] as number;
      }
    }
    const tables = {
      key,
      starts: this.memory.put(`${slot}-starts`, starts),
      picks: this.memory.put(`${slot}-picks`, picks),
      weights: this.memory.put(`${slot}-weights`, weights),
      pairs,
      near,
    };
    this.knownAcross.set(slot, tables);
    return tables;
  }

  /** Tables down: the first row of each output's taps, and their weights. */
  down(slot: string, count: number, axis: Axis, reach: SampleReach): DownTables {
    const key = toKey(count, axis, reach);
    const known = this.knownDown.get(slot);
    if (known?.key === key) return known;
    const filter = getFilter(count, axis, reach);
    const tables = {
      key,
      starts: this.memory.put(`${slot}-starts`, filter.starts),
      weights: this.memory.put(`${slot}-weights`, filter.weights),
      pairs: filter.taps / 2,
    };
    this.knownDown.set(slot, tables);
    return tables;
  }
}

const toKey = (count: number, axis: Axis, reach: SampleReach): string =>
  `${count} ${axis.origin} ${axis.step} ${reach.first} ${reach.last}`;

/** An axis's filter with the taps outside its reach folded into the edge. */
const getFilter = (count: number, axis: Axis, reach: SampleReach): AxisFilter =>
  clampStarts(axisFilter(count, axis.origin, axis.step), reach);
