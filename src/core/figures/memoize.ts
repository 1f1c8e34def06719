/** Methods that a map and a weak map have in common. */
interface Branches<T> {
  get(key: unknown): Branch<T> | undefined;
  set(key: unknown, branch: Branch<T>): unknown;
}

/** A step on the way to a result: a branch for each value of the next key. Most are the last, and need no maps. */
class Branch<T> {
  private byObject: WeakMap<object, Branch<T>> | null = null;
  private byValue: Map<unknown, Branch<T>> | null = null;
  isDone = false;
  result: T | undefined;

  /** The branch of a key; it goes with the key where that is an object. */
  next(key: unknown): Branch<T> {
    const branches: Branches<T> =
      typeof key === 'object' && key !== null
        ? (this.byObject ??= new WeakMap<object, Branch<T>>())
        : (this.byValue ??= new Map<unknown, Branch<T>>());
    let branch = branches.get(key);
    if (!branch) {
      branch = new Branch<T>();
      branches.set(key, branch);
    }
    return branch;
  }
}

/**
 * A function that remembers its results by the identity of what they are worked out from. Nothing is ever invalidated:
 * what a person makes is not changed in place, so whatever changes is another object, and a result is let go with the
 * objects that it came from.
 * @param work must give the same for the same keys.
 * @param keysOf what a result is worked out from, an object first, since a bare value would be kept for good; without
 * it, the arguments themselves.
 */
export function memoize<Args extends unknown[], T>(
  work: (...args: Args) => T,
  keysOf: ((...args: Args) => readonly [object, ...unknown[]]) | null = null,
): (...args: Args) => T {
  const root = new Branch<T>();
  return (...args) => {
    const keys = keysOf === null ? args : keysOf(...args);
    let branch = root;
    // Counted, since this is asked some thousand times in a step of a drag.
    for (let n = 0; n < keys.length; n++) branch = branch.next(keys[n]);
    if (!branch.isDone) {
      branch.result = work(...args);
      branch.isDone = true;
    }
    return branch.result as T;
  };
}
