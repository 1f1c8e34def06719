import type { z } from 'zod';
import { describeProblem } from '../../figures/schema-problem';
import type { Edit } from '../job';
import { CANVAS_COMMANDS } from './canvas-commands';
import { CLIP_COMMANDS } from './clip-commands';
import { type CommandKind, CommandRefused } from './command';
import { CUT_COMMANDS } from './cut-commands';
import { ENCODING_COMMANDS } from './encoding-commands';
import { FRAMING_COMMANDS } from './framing-commands';
import { MASTER_COMMANDS } from './master-commands';
import { SHOT_COMMANDS } from './shot-commands';
import { mergeCommands } from './together';
import { WORDS_COMMANDS } from './words-commands';

export type { Owner } from './framing-commands';

/** Every change that a person can make at one place of a job, by name: a family a file, and a line here. */
const SINGLE = {
  ...CUT_COMMANDS,
  ...SHOT_COMMANDS,
  ...MASTER_COMMANDS,
  ...CLIP_COMMANDS,
  ...CANVAS_COMMANDS,
  ...ENCODING_COMMANDS,
  ...FRAMING_COMMANDS,
  ...WORDS_COMMANDS,
};
const COMMANDS = { ...SINGLE, ...mergeCommands((edit, command) => applyByType(SINGLE, edit, command)) };
type Name = keyof typeof COMMANDS;

type Values<N extends Name> = z.infer<(typeof COMMANDS)[N]['schema']>;
export type Command = {
  [N in Name]: { type: N } & (Values<N> extends Record<string, never> ? unknown : Values<N>);
}[Name];

/** Acts of a command that has some. */
export type ActOf<N extends Name> = Values<N> extends { act: infer Act } ? Act : never;

/** Name and values belong together in a command; the table knows each pair. */
const findKind = (table: object, name: string): CommandKind<unknown> | undefined =>
  (table as Partial<Record<string, CommandKind<unknown>>>)[name];

function applyByType(table: object, edit: Edit, command: { type: string }): Edit {
  const kind = findKind(table, command.type);
  if (!kind) throw new RangeError(`there is no command ${command.type}`);
  const { error } = kind.schema.safeParse(command);
  if (error) throw new CommandRefused(describeProblem(error));
  return kind.apply(edit, command);
}

/**
 * The edit after a command. Pure.
 * @throws CommandRefused for values that a job could not be read back with. @throws RangeError for a placement or a
 * canvas that is not there.
 */
export const applyCommand = (edit: Edit, command: Command): Edit => applyByType(COMMANDS, edit, command);

/** Makes the stored name of a command's step: `set-cut/trim`, or `detach`. */
export function stepName(command: Command): string {
  return 'act' in command ? `${command.type}/${command.act}` : command.type;
}

/** Finds the label of a stored step; none for one that this program does not know any more. */
export function stepLabel(name: string): string {
  const [type = '', act = ''] = name.split('/');
  const label = findKind(COMMANDS, type)?.label;
  return (typeof label === 'object' ? label[act] : label) ?? 'an earlier step';
}
