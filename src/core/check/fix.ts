import type { Command } from '../job/commands/commands';

/** A way out of a finding: one file of fixes/ each. */
export interface Fix<Values> {
  /** Label of its button. */
  label(values: Values): string;
  /** True when it takes nothing away that a person made or chose: those are applied together with one tap. */
  safe: boolean;
  /** The one change that it makes, and that undo takes back. */
  command(values: Values): Command;
}
