import { z } from 'zod';
import { TROUBLES } from './troubles';

export type TroubleCode = keyof typeof TROUBLES;
export const TROUBLE_CODES = Object.keys(TROUBLES) as TroubleCode[];

/** The values that the words of a trouble need. */
export type TroubleValues<C extends TroubleCode> = z.infer<(typeof TROUBLES)[C]['values']>;

/** Error as data: a code, and the values that its words need. */
export type Trouble = { [C in TroubleCode]: { code: C; values: TroubleValues<C> } }[TroubleCode];

/** A trouble as it comes from elsewhere: a message, or storage. */
export const troubleSchema = z
  .object({ code: z.enum(TROUBLE_CODES), values: z.unknown() })
  .transform(({ code, values }, context): Trouble => {
    const read = TROUBLES[code].values.safeParse(values);
    if (read.success) return { code, values: read.data } as Trouble;
    context.addIssue(`the values of ${code} are not whole`);
    return z.NEVER;
  });

/** A code with its values; a trouble that needs none is its code alone. */
type TroubleArgs = {
  [C in TroubleCode]: TroubleValues<C> extends Record<string, never>
    ? [code: C]
    : [code: C, values: TroubleValues<C>];
}[TroubleCode];

/** A trouble on its way up. */
export class TroubleError extends Error {
  readonly trouble: Trouble;

  constructor(...args: TroubleArgs) {
    const [code, values = {}] = args;
    super(`${code} ${JSON.stringify(values)}`);
    this.name = 'TroubleError';
    this.trouble = { code, values } as Trouble;
  }

  /** A trouble that was told elsewhere, thrown on here. */
  static of({ code, values }: Trouble): TroubleError {
    return new TroubleError(...([code, values] as unknown as TroubleArgs));
  }
}

/** Codes whose words tell a detail, for errors that have no code of their own. */
type DetailedCode = {
  [C in TroubleCode]: TroubleValues<C> extends { detail: string } ? C : never;
}[TroubleCode];

/**
 * Any thrown value as a trouble; what has no code of its own becomes `fallback` with its message as detail, and
 * with what else its words need.
 */
export function toTrouble<C extends DetailedCode>(
  error: unknown,
  fallback: C,
  more: Omit<TroubleValues<C>, 'detail'>,
): Trouble {
  if (error instanceof TroubleError) return error.trouble;
  const detail = (error instanceof Error ? error.message : String(error)) || 'no reason was given';
  return { code: fallback, values: { ...more, detail } } as unknown as Trouble;
}

/** A trouble in words: what happened and why, and what to do. */
export function troubleWords({ code, values }: Trouble): { what: string; todo: string } {
  // Code and values belong together in a Trouble; the table knows each pair.
  const words = TROUBLES[code].words as (values: Trouble['values']) => readonly [string, string];
  const [what, todo] = words(values);
  return { what, todo };
}
