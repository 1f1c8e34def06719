import type { Ease } from './easing';
import { type Framing, type Keyframe, findKeyframe } from './framing';
import { withKeyframe } from './moves';

/** A framing that a person set: what it was found by is no longer said. */
export function ownFraming(framing: Framing): Framing {
  const { following: _following, ...own } = framing;
  return own;
}

/** A keyframe that a person set: following goes through it. */
function toPinnedKey(key: Keyframe): Keyframe {
  const { found: _found, ...pin } = key;
  return pin;
}

/** A framing with a keyframe at a frame that holds what it shows there already. */
export function addKeyframe(framing: Framing, frame: number): Framing {
  return withKeyframe(framing, findKeyframe(framing.keyframes, frame));
}

/** A framing without the keyframe at a frame; the last one stays. */
export function removeKeyframe(framing: Framing, frame: number): Framing {
  const keyframes = framing.keyframes.filter((key) => key.frame !== frame);
  return keyframes.length > 0 ? { ...framing, keyframes } : framing;
}

/** A framing with a keyframe moved in time, at most to a frame from its neighbours and inside the shot. */
export function moveKeyframe(
  framing: Framing,
  from: number,
  to: number,
  shot: { in: number; out: number },
): Framing {
  const others = framing.keyframes.filter((key) => key.frame !== from).map((key) => key.frame);
  const least = Math.max(shot.in, ...others.filter((frame) => frame < from).map((frame) => frame + 1));
  const most = Math.min(shot.out - 1, ...others.filter((frame) => frame > from).map((frame) => frame - 1));
  const frame = Math.min(Math.max(to, least), most);
  const keyframes = framing.keyframes.map((key) =>
    key.frame === from ? toPinnedKey({ ...key, frame }) : key,
  );
  return { ...framing, keyframes };
}

/** A framing with the values of the keyframe that holds at a frame put at another. */
export function copyKeyframe(framing: Framing, from: number, to: number): Framing {
  return withKeyframe(framing, { ...findKeyframe(framing.keyframes, from), frame: to });
}

/** A framing whose way from the keyframe at a frame to the next follows a curve. */
export function easeKeyframe(framing: Framing, frame: number, ease: Ease): Framing {
  return {
    ...framing,
    keyframes: framing.keyframes.map((key) => (key.frame === frame ? toPinnedKey({ ...key, ease }) : key)),
  };
}

/** A framing that stays for the whole shot as it is at a frame, and follows nobody any more. */
export function removeMotion(framing: Framing, frame: number): Framing {
  const first = framing.keyframes[0] as Keyframe;
  const current = findKeyframe(framing.keyframes, frame);
  return { ...ownFraming(framing), keyframes: [{ ...current, frame: first.frame, ease: null }] };
}

/** Parts of a framing that are copied to other shots. */
export type CopyScope = 'all' | 'zoom' | 'place' | 'keyframes';

interface Span {
  in: number;
  out: number;
}

/**
 * A shot's framing with what is copied from another shot's: all of it, only its zoom and tilt as they are at a
 * frame, only its place, or only its motion (places and zooms with their times, counted from the shot's first frame).
 *
 * @param to the framing that the shot has. @param at the frame whose zoom or place is meant.
 */
export function copyFraming(
  from: { framing: Framing; shot: Span; frame: number },
  to: { framing: Framing; shot: Span },
  what: CopyScope,
): Framing {
  const { framing } = from;
  const now = findKeyframe(framing.keyframes, from.frame);
  if (what === 'zoom' || what === 'place') {
    const part = what === 'zoom' ? { zoom: now.zoom, tilt: now.tilt } : { focus: now.focus, seat: now.seat };
    // A zoom is for what is found too; a place is the person's.
    const own = what === 'place' ? toPinnedKey : (key: Keyframe) => key;
    return { ...to.framing, keyframes: to.framing.keyframes.map((key) => own({ ...key, ...part })) };
  }
  const keyframes = shiftKeyframes(framing, to.shot.in - from.shot.in, to.shot);
  return what === 'all'
    ? { ...ownFraming(to.framing), turn: framing.turn, fit: framing.fit, keyframes }
    : { ...ownFraming(to.framing), keyframes };
}

/** Keyframes moved in time to lie in a shot; what a shorter shot has no room for ends as it is at its last frame. */
function shiftKeyframes(framing: Framing, by: number, shot: Span): Keyframe[] {
  const last = shot.out - 1;
  const shifted = framing.keyframes.map((key) => toPinnedKey({ ...key, frame: Math.max(0, key.frame + by) }));
  if (shifted.every((key) => key.frame <= last)) return shifted;
  const { keyframes } = withKeyframe({ ...framing, keyframes: shifted }, findKeyframe(shifted, last));
  return keyframes
    .filter((key) => key.frame <= last)
    .map((key) => (key.frame === last ? { ...key, ease: null } : key));
}
