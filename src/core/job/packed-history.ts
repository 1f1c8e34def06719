import { z } from 'zod';
import { framingSchema } from '../framing/framing';
import { clipSchema } from './clip';
import type { History, Step } from './history';
import type { Edit } from './job';
import { repairsSchema } from '../master/repairs';
import { shotSchema } from '../cut/shot';

const index = z.number().int().nonnegative();
const packedStepSchema = z.object({
  name: z.string(),
  shots: index,
  framings: z.array(index),
  repairs: index,
  ticks: index,
  clips: z.array(index).min(1),
  clip: z.string(),
});

/** A history as it is stored: what its edits have in common stands once. */
export const packedHistorySchema = z.object({
  shots: z.array(z.array(shotSchema)),
  framings: z.array(framingSchema),
  repairs: z.array(z.record(z.string(), repairsSchema)),
  ticks: z.array(z.record(z.string(), z.string())),
  clips: z.array(clipSchema),
  past: z.array(packedStepSchema),
  future: z.array(packedStepSchema),
});
export type PackedHistory = z.infer<typeof packedHistorySchema>;

/** Values in the order of their first use; the same object has the same number. */
class Pool<T extends object> {
  readonly values: T[] = [];
  private readonly known = new Map<T, number>();

  indexOf(value: T): number {
    const found = this.known.get(value);
    if (found !== undefined) return found;
    this.known.set(value, this.values.length);
    return this.values.push(value) - 1;
  }
}

/** A history in its stored form. Commands keep what they do not change, so edits share most of their parts. */
export function packHistory({ past, future }: History): PackedHistory {
  const shots = new Pool<Edit['shots']>();
  const framings = new Pool<Edit['framings'][number]>();
  const repairs = new Pool<Edit['repairs']>();
  const ticks = new Pool<Edit['ticks']>();
  const clips = new Pool<Edit['clips'][number]>();
  const pack = ({ name, edit }: Step) => ({
    name,
    shots: shots.indexOf(edit.shots),
    framings: edit.framings.map((one) => framings.indexOf(one)),
    repairs: repairs.indexOf(edit.repairs),
    ticks: ticks.indexOf(edit.ticks),
    clips: edit.clips.map((one) => clips.indexOf(one)),
    clip: edit.clip,
  });
  return {
    past: past.map(pack),
    future: future.map(pack),
    shots: shots.values,
    framings: framings.values,
    repairs: repairs.values,
    ticks: ticks.values,
    clips: clips.values,
  };
}

/** A stored history as it is worked with. @throws RangeError when a step names a part that is not there. */
export function unpackHistory(packed: PackedHistory): History {
  const at = <T>(values: readonly T[], i: number): T => {
    const value = values[i];
    if (value === undefined) throw new RangeError(`the history has no part ${i}`);
    return value;
  };
  const unpack = (step: PackedHistory['past'][number]): Step => ({
    name: step.name,
    edit: {
      shots: at(packed.shots, step.shots),
      framings: step.framings.map((i) => at(packed.framings, i)),
      repairs: at(packed.repairs, step.repairs),
      ticks: at(packed.ticks, step.ticks),
      clips: step.clips.map((i) => at(packed.clips, i)),
      clip: step.clip,
    },
  });
  return { past: packed.past.map(unpack), future: packed.future.map(unpack) };
}
