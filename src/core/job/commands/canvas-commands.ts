import { z } from 'zod';
import type { Framing } from '../../framing/framing';
import { canvasSchema, canvasSizeSchema } from '../../layout/canvas';
import { MAIN_TRACK } from '../../layout/pane';
import { frameRateSchema } from '../../time/frame-rate';
import { activeCanvas } from '../clip';
import { activeClip } from '../job';
import { listActs, command, withCanvas, withClip } from './command';

const ACTS = {
  add: 'add a canvas',
  remove: 'remove a canvas',
  duplicate: 'duplicate a canvas',
  move: 'move a canvas',
  size: 'change the size',
  layout: 'change the layout',
  preset: 'use a preset',
  also: 'choose further placements',
};

/** The canvases of a clip. */
export const CANVAS_COMMANDS = {
  'set-canvases': command({
    schema: z.object({
      act: z.enum(listActs(ACTS)),
      canvases: z.array(canvasSchema).min(1),
      canvas: z.string(),
    }),
    label: ACTS,
    apply: (edit, { canvases, canvas }) =>
      withClip(edit, (clip) => {
        const stays = new Set(canvases.map((canvas) => canvas.id));
        const overrides = clip.overrides.filter((override) => stays.has(override.canvas));
        return { ...clip, canvases, canvas, overrides };
      }),
  }),
  /** A new size keeps layout, framings and rate. Overrides and further placements were for the old one: they end. */
  'choose-placement': command({
    schema: z.object({ placement: z.string(), size: canvasSizeSchema }),
    label: 'choose the canvas',
    apply(edit, { placement, size }) {
      return withClip(edit, (clip) => {
        const { id, placement: before } = activeCanvas(clip);
        const sized = withCanvas(clip, id, ({ also: _also, ...canvas }) => ({
          ...canvas,
          ...size,
          placement,
        }));
        const kept = clip.overrides.filter((override) => override.canvas !== id || before === placement);
        return { ...sized, overrides: kept };
      });
    },
  }),
  'set-rate': command({
    schema: z.object({ rate: frameRateSchema }),
    label: 'choose the rate',
    apply: (edit, { rate }) =>
      withClip(edit, (clip) => withCanvas(clip, activeCanvas(clip).id, (canvas) => ({ ...canvas, rate }))),
  }),
  /** Every window of the canvas being worked on fills again; only framings that were fitted change. */
  'fill-canvas': command({
    schema: z.object({}),
    label: 'fill the canvas',
    apply(edit) {
      const { id, detached } = activeCanvas(activeClip(edit));
      const fill = (framing: Framing): Framing =>
        framing.fit && framing.track === MAIN_TRACK ? { ...framing, fit: false } : framing;
      const follows = ({ shot, track }: Framing) =>
        !detached.some((other) => other.shot === shot && other.track === track);
      const framings = edit.framings.map((framing) => (follows(framing) ? fill(framing) : framing));
      return withClip({ ...edit, framings }, (clip) =>
        withCanvas(clip, id, (canvas) => ({ ...canvas, detached: canvas.detached.map(fill) })),
      );
    },
  }),
};
