import { z } from 'zod';
import { frameCount } from '../../figures/bounded';
import { boundarySchema, replaceShots } from '../../cut/shots';
import { shotSchema } from '../../cut/shot';
import type { Framing } from '../../framing/framing';
import { listActs, command } from './command';

const ACTS = {
  found: 'use the shots that were found',
  add: 'add a shot',
  merge: 'merge two shots',
  move: 'move a shot',
  list: 'use a shot list',
  edges: 'use the edges that were found',
};

/** Where the shots of a master begin, and which were found right. */
export const SHOT_COMMANDS = {
  'set-shots': command({
    schema: z.object({
      act: z.enum(listActs(ACTS)),
      master: z.string(),
      /** That master's one shot, where it has none of its own yet; its new boundaries, and its length. */
      old: z.array(shotSchema).readonly(),
      boundaries: z.array(boundarySchema).readonly(),
      frames: frameCount(),
    }),
    label: ACTS,
    apply(edit, { master, old, boundaries, frames }) {
      const known = edit.shots.filter((shot) => shot.master === master);
      const own = known.length > 0 ? known : old;
      const of = (framings: Framing[]) =>
        replaceShots({ shots: edit.shots, framings }, master, own, boundaries, frames);
      const { shots, framings } = of(edit.framings);
      const gone = new Set(own.map((shot) => shot.id));
      for (const shot of shots) gone.delete(shot.id);
      return {
        ...edit,
        shots,
        framings,
        ticks: Object.fromEntries(Object.entries(edit.ticks).filter(([shot]) => !gone.has(shot))),
        clips: edit.clips.map((clip) => ({
          ...clip,
          canvases: clip.canvases.map((canvas) =>
            canvas.detached.length === 0 ? canvas : { ...canvas, detached: of(canvas.detached).framings },
          ),
        })),
      };
    },
  }),
  'tick-shot': command({
    schema: z.object({ shot: z.string(), signature: z.string().nullable() }),
    label: 'tick a shot',
    apply(edit, { shot, signature }) {
      const { [shot]: _gone, ...others } = edit.ticks;
      return { ...edit, ticks: signature === null ? others : { ...others, [shot]: signature } };
    },
  }),
};
