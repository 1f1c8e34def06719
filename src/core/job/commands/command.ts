import type { z } from 'zod';
import type { Canvas } from '../../layout/canvas';
import { activeClip, type Edit } from '../job';
import type { Clip } from '../clip';

/** A command was not carried out: a job that held its values could not be read back. */
export class CommandRefused extends RangeError {
  /** @param problem which value, and why. */
  constructor(readonly problem: string) {
    super(`the command is refused: ${problem}`);
    this.name = 'CommandRefused';
  }
}

/** Kind of change that a person can make to a job. */
export interface CommandKind<Values> {
  /** Schema of its values. */
  schema: z.ZodType<Values>;
  /** Label of its undo step: one name, or one for each act. */
  label: string | Record<string, string>;
  /** The edit after it. Pure; places are kept in the picture's own coordinates, so that none is lost (`framing.test.ts`, "keep what other canvases show"). */
  apply(edit: Edit, values: Values): Edit;
}

/** Declares a kind of change; the type of its values is that of its schema. */
export const command = <Values>(kind: CommandKind<Values>): CommandKind<Values> => kind;

/** The acts of a table of labels, as a schema takes them. */
export const listActs = <Act extends string>(labels: Record<Act, string>): [Act, ...Act[]] =>
  Object.keys(labels) as [Act, ...Act[]];

/** An edit with the clip being worked on changed. */
export function withClip(edit: Edit, change: (clip: Clip) => Clip): Edit {
  const { id } = activeClip(edit);
  return { ...edit, clips: edit.clips.map((clip) => (clip.id === id ? change(clip) : clip)) };
}

/** A clip with a canvas changed. @throws RangeError for one that it does not have. */
export function withCanvas(clip: Clip, id: string, change: (canvas: Canvas) => Canvas): Clip {
  if (!clip.canvases.some((canvas) => canvas.id === id)) throw new RangeError(`the clip has no canvas ${id}`);
  return { ...clip, canvases: clip.canvases.map((canvas) => (canvas.id === id ? change(canvas) : canvas)) };
}
