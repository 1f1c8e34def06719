import type { Shot } from '../cut/shot';
import { memoize } from '../figures/memoize';
import { type Framing, plainFraming } from '../framing/framing';
import type { Canvas } from './canvas';

/** The framing of a shot on a track as a canvas has it: its own, else the one that all share, else the plain one. */
export function findFraming(
  { detached }: Pick<Canvas, 'detached'>,
  framings: readonly Framing[],
  shot: Pick<Shot, 'id' | 'in'>,
  track: string,
): Framing {
  const key = toKey(shot.id, track);
  return byKey(detached).get(key) ?? byKey(framings).get(key) ?? plainFraming(shot.id, track, shot.in);
}

const toKey = (shot: string, track: string): string => `${track} ${shot}`;

/** Framings by shot and track: a plan asks for one after another of the same list. */
const byKey = memoize(
  (framings: readonly Framing[]) =>
    new Map(framings.map((framing) => [toKey(framing.shot, framing.track), framing])),
);
