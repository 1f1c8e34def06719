import { z } from 'zod';
import { boundedCount } from '../figures/bounded';
import { computeDelta } from './delta';
import { EMPTY_HISTORY, type History } from './history';
import type { Edit } from './job';
import { editFromFourth } from './migrate-fourth';
import { editFromThird } from './migrate-third';

const index = boundedCount();
const packedStep = z.object({
  name: z.string(),
  shots: index,
  framings: z.array(index),
  repairs: index,
  ticks: index,
  clips: z.array(index).min(1),
  clip: z.string(),
});
/** The history of version 3: whole edits, with what they have in common stored once. */
const packed = z.object({
  shots: z.array(z.unknown()),
  framings: z.array(z.unknown()),
  repairs: z.array(z.unknown()),
  ticks: z.array(z.unknown()),
  clips: z.array(z.unknown()),
  past: z.array(packedStep),
  future: z.array(packedStep),
});

/** Steps were called by their words then; they keep them, and belong to no command of today. */
const EARLIER = 'earlier';

/**
 * The history of a job of version 3 as what each step changed. One that went bad costs undo, not the job.
 * @param now the job's edit of today.
 */
export function historyFromThird(value: unknown, now: Edit, masterIds: readonly string[]): History {
  const read = packed.safeParse(value);
  if (!read.success) return EMPTY_HISTORY;
  const { past, future, ...parts } = read.data;
  const toEdit = (step: z.infer<typeof packedStep>): Edit =>
    editFromFourth(
      editFromThird(
        {
          shots: parts.shots[step.shots],
          framings: step.framings.map((i) => parts.framings[i]),
          repairs: parts.repairs[step.repairs],
          ticks: parts.ticks[step.ticks],
          clips: step.clips.map((i) => parts.clips[i]),
          clip: step.clip,
        },
        masterIds,
      ),
    );
  try {
    const before = past.map(toEdit);
    // What was undone last comes next: each holds the edit after its step.
    const after = future.map(toEdit).reverse();
    const steps = (edits: readonly Edit[]) =>
      edits.slice(1).flatMap((edit, i) => {
        const delta = computeDelta(edits[i], edit);
        return delta ? [{ command: EARLIER, delta }] : [];
      });
    return { past: steps([...before, now]), future: steps([now, ...after]).reverse() };
  } catch {
    return EMPTY_HISTORY;
  }
}
