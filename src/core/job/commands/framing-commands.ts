import { z } from 'zod';
import { frameIndex } from '../../figures/bounded';
import { type Framing, framingSchema, plainFraming } from '../../framing/framing';
import { findFraming } from '../../layout/find-framing';
import { listFramingTracks } from '../../layout/layout';
import type { Edit } from '../job';
import { listActs, command, withCanvas, withClip } from './command';

const ACTS = {
  move: 'move the window',
  zoom: 'zoom',
  tilt: 'tilt',
  turn: 'turn',
  seat: 'change the seat',
  point: 'point at the subject',
  fit: 'fill or fit',
  keyframe: 'set a keyframe',
  unkeyframe: 'remove a keyframe',
  time: 'move a keyframe',
  ease: 'change the ease',
  still: 'remove the motion',
  copy: 'copy the framing',
  follow: 'follow',
};

/**
 * Owner of framings that a change is for: those that all canvases share, or those of one canvas of the clip.
 */
const ownerSchema = z.union([z.literal('shared'), z.object({ canvas: z.string() })]);
export type Owner = z.infer<typeof ownerSchema>;

type Key = Pick<Framing, 'shot' | 'track'>;
const sameKey = (a: Key, b: Key): boolean => a.shot === b.shot && a.track === b.track;

function withFramings(edit: Edit, owner: Owner, change: (known: Framing[]) => Framing[]): Edit {
  if (owner === 'shared') return { ...edit, framings: change(edit.framings) };
  return withClip(edit, (clip) =>
    withCanvas(clip, owner.canvas, (canvas) => ({ ...canvas, detached: change(canvas.detached) })),
  );
}

/** Framings with some in the place of those of the same shot and track, each where it was. */
function replaceFramings(known: readonly Framing[], framings: readonly Framing[]): Framing[] {
  const fresh = framings.filter((framing) => !known.some((other) => sameKey(framing, other)));
  return [...known.map((framing) => framings.find((other) => sameKey(framing, other)) ?? framing), ...fresh];
}

/** Where the window lies over the shots. */
export const FRAMING_COMMANDS = {
  'set-framings': command({
    schema: z.object({ act: z.enum(listActs(ACTS)), owner: ownerSchema, framings: z.array(framingSchema) }),
    label: ACTS,
    apply: (edit, { owner, framings }) =>
      withFramings(edit, owner, (known) => replaceFramings(known, framings)),
  }),
  /** A shared framing goes; a detached one becomes plain, so that the canvas stays by itself. */
  'reset-framing': command({
    schema: z.object({ shot: z.string(), track: z.string(), owner: ownerSchema }),
    label: 'reset the framing',
    apply: (edit, { shot, track, owner }) =>
      withFramings(edit, owner, (known) => {
        if (owner === 'shared') return known.filter((framing) => !sameKey(framing, { shot, track }));
        const frame = known.find((framing) => sameKey(framing, { shot, track }))?.keyframes[0]?.frame ?? 0;
        return replaceFramings(known, [plainFraming(shot, track, frame)]);
      }),
  }),
  /** A canvas gets framings of its own for a shot, that begin as those it followed. */
  detach: command({
    schema: z.object({
      canvas: z.string(),
      shot: z.object({ id: z.string(), in: frameIndex() }),
    }),
    label: 'frame this canvas by itself',
    apply: (edit, { canvas: id, shot }) =>
      withClip(edit, (clip) =>
        withCanvas(clip, id, (canvas) => {
          const own = listFramingTracks(canvas.layout).map((track) =>
            findFraming(canvas, edit.framings, shot, track),
          );
          const others = canvas.detached.filter((framing) => framing.shot !== shot.id);
          return { ...canvas, detached: [...others, ...own] };
        }),
      ),
  }),
  attach: command({
    schema: z.object({ canvas: z.string(), shot: z.string() }),
    label: 'follow the other canvases',
    apply: (edit, { canvas, shot }) =>
      withFramings(edit, { canvas }, (known) => known.filter((framing) => framing.shot !== shot)),
  }),
};
