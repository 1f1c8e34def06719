import type { z } from 'zod';
import type { Edit } from '../job';
import { CANVAS_COMMANDS } from './canvas-commands';
import { CLIP_COMMANDS } from './clip-commands';
import type { CommandKind } from './command';
import { CUT_COMMANDS } from './cut-commands';
import { FRAMING_COMMANDS } from './framing-commands';
import { MASTER_COMMANDS } from './master-commands';
import { SHOT_COMMANDS } from './shot-commands';

export type { Owner } from './framing-commands';

/** Every change that a person can make to a job, by name: a family a file, and a line here. */
const COMMANDS = {
  ...CUT_COMMANDS,
  ...SHOT_COMMANDS,
  ...MASTER_COMMANDS,
  ...CLIP_COMMANDS,
  ...CANVAS_COMMANDS,
  ...FRAMING_COMMANDS,
};
type Name = keyof typeof COMMANDS;

type Values<N extends Name> = z.infer<(typeof COMMANDS)[N]['schema']>;
export type Command = {
  [N in Name]: { type: N } & (Values<N> extends Record<string, never> ? unknown : Values<N>);
}[Name];

/** What a command with acts may be said to do. */
export type ActOf<N extends Name> = Values<N> extends { act: infer Act } ? Act : never;

/** Name and values belong together in a command; the table knows each pair. */
const kindOf = (name: string): CommandKind<unknown> | undefined =>
  (COMMANDS as Partial<Record<string, CommandKind<unknown>>>)[name];

/** The edit after a command. Pure. @throws RangeError for a placement or a canvas that is not there. */
export function applyCommand(edit: Edit, command: Command): Edit {
  const kind = kindOf(command.type);
  if (!kind) throw new RangeError(`there is no command ${String(command.type)}`);
  return kind.apply(edit, command);
}

/** What a step that a command made is stored as: `set-cut/trim`, or `detach`. */
export function stepName(command: Command): string {
  return 'act' in command ? `${command.type}/${command.act}` : command.type;
}

/** What a stored step is called where it can be undone; one that this program does not know any more has no words. */
export function stepLabel(name: string): string {
  const [type = '', act = ''] = name.split('/');
  const label = kindOf(type)?.label;
  return (typeof label === 'object' ? label[act] : label) ?? 'an earlier step';
}
