import { produce } from 'immer';
import { create, type Delta as AnyDelta } from 'jsondiffpatch';
import { z } from 'zod';

/** What changed from one plain value to another, both ways. */
export type Delta = Exclude<AnyDelta, undefined>;

/** A delta as it is stored; what is in it is known once it is applied. */
export const deltaSchema = z.custom<Delta>((value) => typeof value === 'object' && value !== null);

/** What tells an element of a list from the others, where it is moved or changed. */
function keyOf(element: object): string | undefined {
  const { id, shot, track, frame } = element as Partial<Record<string, unknown>>;
  if (typeof id === 'string') return id;
  if (typeof shot === 'string' && typeof track === 'string') return `${shot}/${track}`;
  return typeof frame === 'number' ? String(frame) : undefined;
}

const differ = create({ objectHash: keyOf, arrays: { detectMove: true, includeValueOnMove: false } });

/** What changed from one plain value to another, both ways; null when nothing did. What both share is not looked at. */
export function deltaBetween(before: unknown, after: unknown): Delta | null {
  return differ.diff(before, after) ?? null;
}

/** A value after a change. What did not change stays the same object. @throws when the change is of another value. */
export function withDelta<T>(value: T, delta: Delta): T {
  return produce(value, (draft) => void differ.patch(draft, copied(delta)));
}

/** A value before a change. @throws when the change is of another value. */
export function withoutDelta<T>(value: T, delta: Delta): T {
  return produce(value, (draft) => void differ.unpatch(draft, copied(delta)));
}

/** What a change puts in becomes a part of the value, and must not be one with the stored change. */
const copied = (delta: Delta): Delta => JSON.parse(JSON.stringify(delta)) as Delta;
