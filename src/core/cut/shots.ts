import { z } from 'zod';
import { frameIndex } from '../figures/bounded';
import type { Framing } from '../framing/framing';
import { type Shot, type ShotStart, shotStartSchema } from './shot';
import { pictureRectSchema } from '../picture/size';

/** Shots of every master with the framings that name them. */
export interface Shots {
  shots: Shot[];
  framings: Framing[];
}

/** Where a shot begins, and how. The first begins at 0. */
export const boundarySchema = z.object({
  /** The shot that begins there: one of before, or the name of a new one; without it the one that began there. */
  shot: z.string().optional(),
  frame: frameIndex(),
  start: shotStartSchema.nullable(),
  live: pictureRectSchema.nullable().optional(),
});
export type Boundary = z.infer<typeof boundarySchema>;

const SET: ShotStart = { kind: 'set', confidence: 1, frames: 0 };

/**
 * New shots for a master. A shot is the one that its boundary names, wherever that went; without a name it is the one
 * that began at the same frame. A new shot takes over the framing of the shot that it lies in, so that nothing a
 * person framed is lost (`shots.test.ts`).
 *
 * @param old that master's shots as they are. @param boundaries in any order; frames outside 1…frames−1 fall away.
 * @param frames length of the master.
 */
export function replaceShots(
  all: Shots,
  master: string,
  old: readonly Shot[],
  boundaries: readonly Boundary[],
  frames: number,
): Shots {
  const starts = new Map<number, Boundary>([[0, { frame: 0, start: null }]]);
  for (const boundary of boundaries) {
    if (boundary.frame === 0) starts.set(0, { ...boundary, start: null });
    else if (boundary.frame > 0 && boundary.frame < frames) starts.set(boundary.frame, boundary);
  }
  const ordered = [...starts.values()].sort((a, b) => a.frame - b.frame);
  const named = new Set(ordered.flatMap(({ shot }) => shot ?? []));
  const freshId = freshIds(master, [
    ...old.map((shot) => shot.id),
    ...named,
    ...all.framings.map((framing) => framing.shot),
  ]);
  const made: Shot[] = [];
  const framings: Framing[] = [];
  ordered.forEach((boundary, i) => {
    const same =
      old.find((shot) => shot.id === boundary.shot) ??
      old.find((shot) => shot.in === boundary.frame && !named.has(shot.id));
    const parent = same ?? old.find((shot) => boundary.frame >= shot.in && boundary.frame < shot.out);
    const id = same?.id ?? boundary.shot ?? freshId();
    const live = boundary.live === undefined ? (parent?.live ?? null) : boundary.live;
    made.push({
      id,
      master,
      in: boundary.frame,
      out: ordered[i + 1]?.frame ?? frames,
      start: boundary.start,
      live,
    });
    for (const framing of all.framings)
      if (framing.shot === parent?.id)
        framings.push(id === framing.shot ? framing : { ...framing, shot: id });
  });
  const ids = new Set(old.map((shot) => shot.id));
  return {
    shots: [...all.shots.filter((shot) => shot.master !== master), ...made],
    framings: [...all.framings.filter((framing) => !ids.has(framing.shot)), ...framings],
  };
}

/** Names that no shot has, or had as far as can be told. */
function freshIds(master: string, known: readonly string[]): () => string {
  const taken = new Set(known);
  return () => {
    for (let n = 1; ; n++) {
      const id = `${master}-${n}`;
      if (taken.has(id)) continue;
      taken.add(id);
      return id;
    }
  };
}

/** The boundaries that shots have. */
export function toBoundaries(shots: readonly Shot[]): Boundary[] {
  return shots.map(({ id, in: frame, start, live }) => ({ shot: id, frame, start, live }));
}

/**
 * Boundaries with one more at a frame, put there by a person; the same where there is one.
 * @param shot name of the shot that begins there: one that no shot ever had.
 */
export function withBoundary(boundaries: readonly Boundary[], frame: number, shot: string): Boundary[] {
  return boundaries.some((boundary) => boundary.frame === frame)
    ? [...boundaries]
    : [...boundaries, { shot, frame, start: SET }];
}

/** Boundaries without the one at a frame: the shot before it goes on over the one that began there. The first stays. */
export function removeBoundary(boundaries: readonly Boundary[], frame: number): Boundary[] {
  return boundaries.filter((boundary) => boundary.frame !== frame || boundary.frame === 0);
}

/** Boundaries with one moved, at most to a frame from its neighbours. */
export function moveBoundary(
  boundaries: readonly Boundary[],
  frame: number,
  to: number,
  frames: number,
): Boundary[] {
  const others = boundaries.map((boundary) => boundary.frame).filter((other) => other !== frame);
  const before = Math.max(0, ...others.filter((other) => other < frame));
  const after = Math.min(frames, ...others.filter((other) => other > frame));
  const kept = Math.min(Math.max(to, before + 1), after - 1);
  return boundaries.map((boundary) =>
    boundary.frame === frame && frame > 0 ? { ...boundary, frame: kept, start: SET } : boundary,
  );
}
