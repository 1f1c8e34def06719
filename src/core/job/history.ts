import { z } from 'zod';
import { memoize } from '../figures/memoize';
import { applyCommand, type Command, stepName } from './commands/commands';
import { computeDelta, deltaSchema, withDelta, removeDelta } from './delta';
import type { Edit } from './job';

/** Step that can be undone: the command that made it, and what it changed, both ways. */
const stepSchema = z.object({ command: z.string(), delta: deltaSchema });
export type HistoryStep = z.infer<typeof stepSchema>;

/** Steps that were done, and steps that were undone, the next one last. */
export const historySchema = z.object({ past: z.array(stepSchema), future: z.array(stepSchema) });
export type History = z.infer<typeof historySchema>;

/** Steps kept, at most. */
export const MAX_STEPS = 200;
/** Maximum length of the history as text: together with its document a job stays under a megabyte. */
const MAX_TEXT = 400_000;

export const EMPTY_HISTORY: History = { past: [], future: [] };

/** An edit with its history. */
export interface EditWithHistory {
  edit: Edit;
  history: History;
}

/** Result of a command on an edit, and what it changed; null where it changed nothing. */
export interface EditChange extends HistoryStep {
  after: Edit;
}

/** Applies a command. @throws RangeError */
export function computeChange(edit: Edit, command: Command): EditChange | null {
  const after = applyCommand(edit, command);
  const delta = computeDelta(edit, after);
  return delta && { command: stepName(command), delta, after };
}

/** The history after a step. */
export function recordStep(
  { history }: EditWithHistory,
  { after, command, delta }: EditChange,
): EditWithHistory {
  return { edit: after, history: { past: trimPast([...history.past, { command, delta }]), future: [] } };
}

/**
 * The history after a change that continues its last step (a held arrow key, a word being typed): undo goes back to
 * before the first.
 */
export function extendStep(before: EditWithHistory, change: EditChange): EditWithHistory {
  const { past } = before.history;
  const last = past[past.length - 1];
  if (!last) return recordStep(before, change);
  const delta = computeDelta(removeDelta(before.edit, last.delta), change.after);
  const step = delta ? [{ command: last.command, delta }] : [];
  return { edit: change.after, history: { past: trimPast([...past.slice(0, -1), ...step]), future: [] } };
}

/** Goes one step back; returns the same when there is none. */
export function undoStep({ edit, history }: EditWithHistory): EditWithHistory {
  const step = history.past[history.past.length - 1];
  if (!step) return { edit, history };
  const future = [...history.future, step];
  return { edit: removeDelta(edit, step.delta), history: { past: history.past.slice(0, -1), future } };
}

/** Goes one step forward; returns the same when there is none. */
export function redoStep({ edit, history }: EditWithHistory): EditWithHistory {
  const step = history.future[history.future.length - 1];
  if (!step) return { edit, history };
  const past = [...history.past, step];
  return { edit: withDelta(edit, step.delta), history: { past, future: history.future.slice(0, -1) } };
}

/** Characters that a step takes as it is stored. */
const sizeOf = memoize(
  ({ delta }: HistoryStep) => JSON.stringify(delta).length,
  ({ delta }) => [delta as object],
);

/** The newest steps that are kept. */
function trimPast(past: HistoryStep[]): HistoryStep[] {
  let text = 0;
  let from = past.length;
  while (from > 0 && past.length - from < MAX_STEPS) {
    text += sizeOf(past[from - 1] as HistoryStep);
    if (text > MAX_TEXT && from < past.length) break;
    from -= 1;
  }
  return from === 0 ? past : past.slice(from);
}
