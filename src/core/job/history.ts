import { type Command, commandName } from './commands';
import type { Edit } from './job';

/** One step that can be undone: the edit before it, or after it once it was undone. */
export interface Step {
  name: string;
  edit: Edit;
}
export interface History {
  past: Step[];
  future: Step[];
}

/** Steps kept: enough for a session's work, small enough for the browser's storage. */
const MOST_STEPS = 80;

export const EMPTY_HISTORY: History = { past: [], future: [] };

/** An edit with its history. */
export interface Versioned {
  edit: Edit;
  history: History;
}

/**
 * The history after a command. A step that continues the last one (a held arrow key, a word being typed) adds
 * nothing: undo goes back to before the first.
 */
export function recorded(before: Versioned, after: Edit, command: Command, continues: boolean): Versioned {
  if (continues && before.history.past.length > 0) {
    return { edit: after, history: { past: before.history.past, future: [] } };
  }
  const step = { name: commandName(command), edit: before.edit };
  return { edit: after, history: { past: [...before.history.past, step].slice(-MOST_STEPS), future: [] } };
}

/** One step back; the same when there is none. */
export function undone({ edit, history }: Versioned): Versioned {
  const step = history.past[history.past.length - 1];
  if (!step) return { edit, history };
  const future = [...history.future, { name: step.name, edit }];
  return { edit: step.edit, history: { past: history.past.slice(0, -1), future } };
}

/** One step forward; the same when there is none. */
export function redone({ edit, history }: Versioned): Versioned {
  const step = history.future[history.future.length - 1];
  if (!step) return { edit, history };
  const past = [...history.past, { name: step.name, edit }];
  return { edit: step.edit, history: { past, future: history.future.slice(0, -1) } };
}
