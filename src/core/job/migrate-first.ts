import { z } from 'zod';
import { boundedNumber, MAX_SIDE_PIXELS, measure } from '../figures/bounded';
import { toSeconds } from '../time/frame-rate';
import { toMasterId } from '../master/master';

/** Marks of a job of version 1: one master, one clip whose parts stood in the edit itself. */
const firstVersion = z.looseObject({
  title: z.string(),
  master: z.looseObject({
    fingerprint: z.string(),
    picture: z.object({
      width: boundedNumber(0, MAX_SIDE_PIXELS),
      height: boundedNumber(0, MAX_SIDE_PIXELS),
    }),
    coded: z.object({ width: boundedNumber(0, MAX_SIDE_PIXELS), height: boundedNumber(0, MAX_SIDE_PIXELS) }),
    rotation: measure(),
    rate: z.object({ num: measure(), den: measure() }),
    video: z.looseObject({}),
    colour: z.looseObject({}),
    audio: z.looseObject({}).nullable(),
  }),
  edit: z.looseObject({
    shots: z.array(z.looseObject({ id: z.string() })),
    framings: z.array(z.unknown()),
    cut: z.array(z.looseObject({})),
  }),
  exports: z.array(z.looseObject({})),
  posts: z.array(z.looseObject({})),
});

/** A stored job of version 1 as one of version 2. @throws ZodError for what never was such a job. */
export function fromFirst(value: unknown): unknown {
  const { master, edit, ...job } = firstVersion.parse(value);
  const id = toMasterId(master.fingerprint);
  const { shots, framings, cut, ...clip } = edit;
  const mean = toSeconds(1, master.rate);
  const sideways = master.rotation % 180 !== 0;
  const upright = sideways ? { width: master.picture.height, height: master.picture.width } : master.picture;
  // Only then was the picture stretched across, or down.
  const across = Math.round(upright.width * master.coded.height);
  const down = Math.round(upright.height * master.coded.width);
  return {
    ...job,
    schemaVersion: 2,
    masters: [
      {
        ...master,
        id,
        pixelAspect: across === down ? { num: 1, den: 1 } : { num: across, den: down },
        flip: false,
        frameTimes: { least: mean, mean, greatest: mean },
        repeated: 0,
        dropped: 0,
        video: { ...master.video, depth: null, interlaced: null },
        colour: { primaries: null, transfer: null, ...master.colour },
        audioTracks: master.audio ? [master.audio] : [],
      },
    ],
    edit: {
      shots: shots.map((shot) => ({ ...shot, master: id, start: null, live: null })),
      framings,
      repairs: {},
      clips: [
        {
          ...clip,
          id: 'clip-1',
          name: job.title,
          part: null,
          cut: cut.map((range) => ({ ...range, master: id })),
        },
      ],
      clip: 'clip-1',
    },
    exports: job.exports.map((record) => ({ ...record, clip: 'clip-1' })),
    posts: job.posts.map((record) => ({ ...record, clip: 'clip-1' })),
  };
}
