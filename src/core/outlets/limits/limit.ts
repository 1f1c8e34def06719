import type { z } from 'zod';
import { boundedInt } from '../../figures/bounded';
import type { SentFile, SentPost } from '../sent';
import type { Field, FieldGroup, Section } from './field';

/** Schemas of a placement's values; some lie together under one name, such as `video`. */
export type LimitShape = Record<string, z.ZodType | Record<string, z.ZodType>>;

/** The values that a shape describes. */
export type LimitValues<S extends LimitShape> = {
  [K in keyof S]: S[K] extends z.ZodType
    ? z.infer<S[K]>
    : { [P in keyof S[K]]: S[K][P] extends z.ZodType ? z.infer<S[K][P]> : never };
};

/**
 * Descriptor of one limit of a placement: its values in a rule sheet, how they are entered, and how an outlet
 * judges by them. A value that is added later is null where it asks for nothing, and that is its default:
 * sheets that were written before it stay readable and keep their marks (`sheet-mark.ts`).
 */
export interface Limit<Name extends string, S extends LimitShape> {
  /** Name that refusals give it. */
  name: Name;
  shape: S;
  /** Values of a placement that asks for as little as one can. */
  plain: LimitValues<S>;
  /** Part of the form that its fields lie in; sizes, zones and what an outlet makes of a clip have forms of their own. */
  section?: Section;
  fields?: readonly Field[];
  groups?: readonly FieldGroup[];
  /** Says in a sentence why an outlet refuses a file; null where it does not. */
  refuseFile?(file: SentFile, placement: { name: string } & LimitValues<S>): string | null;
  /** Says in a sentence why an outlet refuses what was sent with a file; null where it does not. */
  refusePost?(post: SentPost, placement: { name: string } & LimitValues<S>): string | null;
  /** Set where no rule of the check has words and a fix of its own for it: `other-limits` tells of it then. */
  isPlainlyChecked?: true;
}

/** Pixels of a side in what an outlet asks for or makes. */
export const outletSide = (): z.ZodNumber => boundedInt(1, 16_384);

/** Declares a limit. */
export const declareLimit = <const Name extends string, S extends LimitShape>(
  limit: Limit<Name, S>,
): Limit<Name, S> => limit;

/** Names one after another: `AAC or MP3`. */
export const joinAlternatives = (names: readonly string[]): string => names.join(' or ');
