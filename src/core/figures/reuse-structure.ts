/**
 * A value like another one, made of the pieces of an older value wherever these are the same: what did not change stays
 * the same object. Both are plain data, as they come out of JSON or from another thread.
 */
export function reuseStructure<T>(old: unknown, now: T): T {
  if (Object.is(old, now) || typeof old !== 'object' || old === null) return now;
  if (typeof now !== 'object' || now === null || Array.isArray(old) !== Array.isArray(now)) return now;
  const pieces = new Map(Object.entries(old));
  const made = Object.entries(now).map(([key, value]): [string, unknown] => [
    key,
    reuseStructure(pieces.get(key), value),
  ]);
  const same =
    made.length === pieces.size &&
    made.every(([key, value]) => pieces.has(key) && Object.is(value, pieces.get(key)));
  if (same) return old as T;
  return (Array.isArray(now) ? made.map(([, value]) => value) : Object.fromEntries(made)) as T;
}
