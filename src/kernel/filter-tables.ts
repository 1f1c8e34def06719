import type { Axis } from './axes';
import { axisFilter, clampStarts, type Reach } from './lanczos';
import { alignUp, type KernelMemory } from './memory';

/** Taps across come in groups: one SIMD load each. */
export const TAP_GROUP = 8;

/** Where a table of one axis lies in the kernel's memory. */
interface AxisTables {
  key: string;
  starts: number;
  weights: number;
  taps: number;
}

/** The filters of axes as the module reads them: each stays where it lies until its slot has another. */
export class FilterTables {
  private readonly known = new Map<string, AxisTables>();

  constructor(private readonly memory: KernelMemory) {}

  /** Tables across; the padding up to a multiple of eight samples has zero taps. */
  across(slot: string, count: number, width8: number, axis: Axis, reach: Reach): AxisTables {
    const key = `${count} ${axis.origin} ${axis.step} ${reach.first} ${reach.last}`;
    const known = this.known.get(slot);
    if (known?.key === key) return known;
    const filter = axisFilter(count, axis.origin, axis.step);
    const taps = alignUp(filter.taps, TAP_GROUP);
    const clamped = clampStarts(filter, reach, taps);
    const starts = this.memory.block(`${slot}-starts`, width8 * 4);
    const weights = this.memory.block(`${slot}-weights`, width8 * taps * 2);
    this.memory.at(starts, width8 * 4).fill(0);
    this.memory.at(weights, width8 * taps * 2).fill(0);
    new Int32Array(this.memory.buffer, starts, width8).set(clamped.starts);
    new Int16Array(this.memory.buffer, weights, width8 * taps).set(clamped.weights);
    return this.remember(slot, { key, starts, weights, taps });
  }

  /** Tables down: the row of every tap, already clamped, and its weight. */
  down(slot: string, count: number, axis: Axis, reach: Reach): AxisTables {
    const key = `${count} ${axis.origin} ${axis.step} ${reach.first} ${reach.last}`;
    const known = this.known.get(slot);
    if (known?.key === key) return known;
    const { taps, starts: first, weights: values } = axisFilter(count, axis.origin, axis.step);
    const starts = this.memory.block(`${slot}-rows`, count * taps * 4);
    const weights = this.memory.block(`${slot}-weights`, count * taps * 2);
    const rows = new Int32Array(this.memory.buffer, starts, count * taps);
    for (let k = 0; k < count; k++) {
      for (let t = 0; t < taps; t++) {
        rows[k * taps + t] = Math.min(Math.max((first[k] ?? 0) + t, reach.first), reach.last);
      }
    }
    new Int16Array(this.memory.buffer, weights, count * taps).set(values);
    return this.remember(slot, { key, starts, weights, taps });
  }

  private remember(slot: string, tables: AxisTables): AxisTables {
    this.known.set(slot, tables);
    return tables;
  }
}
