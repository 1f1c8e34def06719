import type { Shot } from './shot';

/** Facts of a master that finding its shots needs. */
interface ShotMaster {
  id: string;
  frames: number;
}

/**
 * The shots of a master, in order. One without any is a single shot, and the last reaches to its end: a conversion of
 * rates may leave it a frame short.
 */
export function listShots(shots: readonly Shot[], { id, frames }: ShotMaster): Shot[] {
  const own = shots.filter((shot) => shot.master === id);
  const last = own[own.length - 1];
  if (!last) return [{ id: `${id}-1`, master: id, in: 0, out: frames, start: null, live: null }];
  return last.out < frames ? [...own.slice(0, -1), { ...last, out: frames }] : own;
}

/** The shot that a master's frame lies in; frames past the last shot belong to it. */
export function findShot(shots: readonly Shot[], master: ShotMaster, frame: number): Shot {
  const own = listShots(shots, master);
  const shot = own.find((shot) => frame >= shot.in && frame < shot.out) ?? own[own.length - 1];
  if (!shot) throw new RangeError('a master has at least one shot');
  return shot;
}
