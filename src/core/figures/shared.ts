/**
 * A value like another one, made of the pieces of an older value wherever these are the same: what did not change stays
 * the same object. Both are plain data, as they come out of JSON or from another thread.
 */
export function shared<T>(old: unknown, now: T): T {
  if (Object.is(old, now) || typeof old !== 'object' || old === null) return now;
  if (typeof now !== 'object' || now === null || Array.isArray(old) !== Array.isArray(now)) return now;
  const before = old as Record<string, unknown>;
  const keys = Object.keys(now);
  const made: Record<string, unknown> = Array.isArray(now) ? (Array(now.length) as never) : {};
  let same = keys.length === Object.keys(old).length;
  for (const key of keys) {
    made[key] = shared(before[key], (now as Record<string, unknown>)[key]);
    same &&= Object.is(made[key], before[key]) && key in before;
  }
  return (same ? old : made) as T;
}
