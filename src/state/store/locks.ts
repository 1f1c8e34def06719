/** Names of locks that this page holds where the browser has none that tabs share. */
const held = new Set<string>();

const getLocks = (): LockManager | null =>
  typeof navigator === 'undefined' ? null : (navigator.locks ?? null);

/** Does something while no other tab does something under the same name. */
export async function runAlone<T>(name: string, work: () => Promise<T>): Promise<T> {
  const locks = getLocks();
  // The types say that the result is wrapped; the browser gives what the work gave.
  return locks ? ((await locks.request(name, work)) as T) : work();
}

/** A lock that is kept until it is released. */
export interface HeldLock {
  release(): void;
  /** Settles when it ended: released, or taken away by another tab. */
  ended: Promise<'released' | 'stolen'>;
}

/**
 * Takes a lock and keeps it.
 * @param how `now`: null where another tab has it. `wait`: when it is free. `steal`: also where another tab has it.
 * @param signal ends the waiting; then null.
 */
export function keepLock(
  name: string,
  how: 'now' | 'wait' | 'steal',
  signal?: AbortSignal,
): Promise<HeldLock | null> {
  const locks = getLocks();
  if (!locks) return Promise.resolve(keepHere(name, how));
  const options: LockOptions = {
    ...(how === 'now' ? { ifAvailable: true } : {}),
    ...(how === 'steal' ? { steal: true } : {}),
    // A signal goes with neither of the others.
    ...(how === 'wait' && signal ? { signal } : {}),
  };
  return new Promise((resolve) => {
    let release: () => void = () => undefined;
    const until = new Promise<void>((done) => (release = done));
    let kept = false;
    let tell: (how: 'released' | 'stolen') => void = () => undefined;
    const ended = new Promise<'released' | 'stolen'>((done) => (tell = done));
    locks
      .request(name, options, (lock) => {
        if (!lock) return resolve(null);
        kept = true;
        resolve({ release, ended });
        return until;
      })
      .then(
        () => tell('released'),
        () => (kept ? tell('stolen') : resolve(null)),
      );
  });
}

function keepHere(name: string, how: 'now' | 'wait' | 'steal'): HeldLock | null {
  if (held.has(name) && how === 'now') return null;
  held.add(name);
  let tell: (how: 'released' | 'stolen') => void = () => undefined;
  const ended = new Promise<'released' | 'stolen'>((done) => (tell = done));
  return {
    ended,
    release() {
      held.delete(name);
      tell('released');
    },
  };
}
