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
  const its = (framing: Framing) => framing.shot === shot.id && framing.track === track;
  return detached.find(its) ?? framings.find(its) ?? plainFraming(shot.id, track, shot.in);
}
