import type { Shot } from '../cut/shot';
import { type Framing, plainFraming } from '../framing/framing';
import type { Canvas } from './canvas';

/** The framing of a shot on a track as a canvas has it: its own, else the one that all share, else the plain one. */
export function framingFor(
  { detached }: Pick<Canvas, 'detached'>,
  framings: readonly Framing[],
  shot: Pick<Shot, 'id' | 'in'>,
  track: string,
): Framing {
  const key = keyOf(shot.id, track);
  return byKey(detached).get(key) ?? byKey(framings).get(key) ?? plainFraming(shot.id, track, shot.in);
}

const keyOf = (shot: string, track: string): string => `${track} ${shot}`;

/** Framings by shot and track: a plan asks for one after another of the same list. */
const known = new WeakMap<readonly Framing[], Map<string, Framing>>();

function byKey(framings: readonly Framing[]): Map<string, Framing> {
  const found = known.get(framings);
  if (found) return found;
  const made = new Map(framings.map((framing) => [keyOf(framing.shot, framing.track), framing]));
  known.set(framings, made);
  return made;
}
