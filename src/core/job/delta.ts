import { produce } from 'immer';
import { create, type Delta as AnyDelta } from 'jsondiffpatch';
import { z } from 'zod';

/** Difference of two plain values, both ways. */
export type Delta = Exclude<AnyDelta, undefined>;

/** A delta as it is stored; what is in it is known once it is applied. */
export const deltaSchema = z.custom<Delta>((value) => typeof value === 'object' && value !== null);

/** Finds the key that tells an element of a list from the others, where it is moved or changed. */
function toKey(element: object): string | undefined {
  const { id, shot, track, frame } = element as Partial<Record<string, unknown>>;
  if (typeof id === 'string') return id;
  if (typeof shot === 'string' && typeof track === 'string') return `${shot}/${track}`;
  return typeof frame === 'number' ? String(frame) : undefined;
}

const differ = create({ objectHash: toKey, arrays: { detectMove: true, includeValueOnMove: false } });

/**
 * Computes the difference of two plain values, both ways; null when there is none. Parts that both share are
 * not looked at.
 *
 * Lists in which elements come, go and change at once are sometimes told so that the way back is another (jsondiffpatch
 * 0.7.7: `delta.test.ts` has such lists). So each delta is tried both ways, and one that fails is told plainly instead.
 */
export function computeDelta(before: unknown, after: unknown): Delta | null {
  const delta = differ.diff(before, after);
  if (!delta) return null;
  return leadsBothWays(before, after, delta) ? delta : plainDelta(before, after);
}

function leadsBothWays(before: unknown, after: unknown, delta: Delta): boolean {
  try {
    return same(withDelta(before, delta), after) && same(removeDelta(after, delta), before);
  } catch {
    return false;
  }
}

type Plain = Record<string, unknown>;
const isPlain = (value: unknown): value is Plain => typeof value === 'object' && value !== null;

/** Tells whether two plain values say the same. */
function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (!isPlain(a) || !isPlain(b) || Array.isArray(a) !== Array.isArray(b)) return false;
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && same(a[key], b[key]));
}

/** A delta in which a list is told by places while it holds the same elements, and else replaced. */
function plainDelta(before: unknown, after: unknown): Delta {
  const [a, b] = [before as Plain, after as Plain];
  const lists = Array.isArray(before) && Array.isArray(after);
  if (!isPlain(before) || !isPlain(after) || Array.isArray(before) !== Array.isArray(after))
    return [before, after];
  if (lists && !sameElements(before, after)) return [before, after];
  const delta: Plain = lists ? { _t: 'a' } : {};
  for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
    if (!(key in a)) delta[key] = [b[key]];
    else if (!(key in b)) delta[key] = [a[key], 0, 0];
    else if (!same(a[key], b[key])) delta[key] = plainDelta(a[key], b[key]);
  }
  return delta as Delta;
}

/** Lists of the same elements, place by place; what has no key is no element that could be told again. */
const sameElements = (before: readonly unknown[], after: readonly unknown[]): boolean =>
  before.length === after.length &&
  before.every((element, i) => {
    const other = after[i];
    if (!isPlain(element) || !isPlain(other)) return element === other;
    const key = toKey(element);
    return key !== undefined && key === toKey(other);
  });

/** A value after a change. What did not change stays the same object. @throws when the change is of another value. */
export function withDelta<T>(value: T, delta: Delta): T {
  return produce(value, (draft) => void differ.patch(draft, copyDelta(delta)));
}

/** A value before a change. @throws when the change is of another value. */
export function removeDelta<T>(value: T, delta: Delta): T {
  return produce(value, (draft) => void differ.unpatch(draft, copyDelta(delta)));
}

/**
 * Copies a delta: what it puts in becomes a part of the value, and must not be shared with the stored change.
 */
const copyDelta = (delta: Delta): Delta => JSON.parse(JSON.stringify(delta)) as Delta;
