import { z } from 'zod';
import { frameIndex } from '../figures/bounded';
import { PLAIN_LAYOUT } from '../layout/layout';
import { MAIN_TRACK } from '../layout/pane';

const keyframe = z.looseObject({ frame: frameIndex() });
const framing = z.looseObject({ shot: z.string(), track: z.string(), keyframes: z.array(keyframe) });
const canvas = z.looseObject({
  id: z.string(),
  layout: z.object({ panes: z.array(z.object({ mode: z.enum(['fill', 'fit']) })) }),
});

/** Marks of a job of version 2: no tilt, no curves, one layout, the whole canvas filled or fitted. */
const secondVersion = z.looseObject({
  masters: z.array(z.looseObject({ id: z.string() })),
  edit: z.looseObject({
    shots: z.array(z.looseObject({ id: z.string(), master: z.string(), in: frameIndex() })),
    framings: z.array(framing),
    clips: z.array(z.looseObject({ id: z.string(), canvases: z.array(canvas).min(1) })),
  }),
  exports: z.array(z.looseObject({ clip: z.string() })),
});

type SecondVersion = z.infer<typeof secondVersion>;

/** A stored job of version 2 as one of version 3. @throws ZodError for what never was such a job. */
export function fromSecond(value: unknown): unknown {
  const job = secondVersion.parse(value);
  const framings = job.edit.framings.map((framing) => newFraming(framing, false));
  return {
    ...job,
    schemaVersion: 3,
    edit: {
      ...job.edit,
      framings,
      ticks: {},
      clips: job.edit.clips.map((clip) => ({
        ...clip,
        canvas: clip.canvases[0]?.id,
        canvases: clip.canvases.map(({ layout, ...rest }) => ({
          ...rest,
          layout: PLAIN_LAYOUT,
          dye: 0,
          // Fit was a canvas's for all its shots; now it is a shot's.
          detached: layout.panes[0]?.mode === 'fit' ? toFittedFramings(job) : [],
        })),
      })),
    },
    exports: job.exports.map((record) => ({ ...record, canvas: 'canvas-1', dye: 0 })),
  };
}

function newFraming(old: SecondVersion['edit']['framings'][number], fit: boolean): object {
  const keyframes = old.keyframes.map((key) => ({ ...key, tilt: 0, ease: null }));
  return { ...old, turn: 0, fit, keyframes };
}

/** For every shot its framing, fitted. */
function toFittedFramings({ masters, edit }: SecondVersion): object[] {
  const whole = masters
    .filter(({ id }) => !edit.shots.some((shot) => shot.master === id))
    .map(({ id }) => ({ id: `${id}-1`, in: 0 }));
  return [...edit.shots, ...whole].map((shot) => {
    const middle = { x: 0.5, y: 0.5 };
    const plain = {
      shot: shot.id,
      track: MAIN_TRACK,
      keyframes: [{ frame: shot.in, focus: middle, seat: middle, zoom: 1 }],
    };
    return newFraming(edit.framings.find((framing) => framing.shot === shot.id) ?? plain, true);
  });
}
