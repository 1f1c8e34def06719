import { z } from 'zod';
import { memoize } from '../figures/memoize';
import { uprightSize } from '../picture/orientation';
import { pictureRectSchema, WHOLE_RECT } from '../picture/size';
import { scaleFrames } from '../time/frame-rate';
import { type Master, masterSchema } from './master';
import { NO_REPAIRS, type Repairs } from './repairs';

/** A master as it is drawn from: its facts with the person's repairs in their place. */
export const sourceSchema = masterSchema.extend({
  /** 0…1 of the upright picture. */
  live: pictureRectSchema,
  deinterlace: z.boolean(),
  /** The colour that the file itself says, where `colour` has the repairs. */
  recorded: masterSchema.shape.colour,
});
export type Source = z.infer<typeof sourceSchema>;

/** The source of a master: its file's facts, with a person's repairs in their place. The same two give the same object. */
export const toSource = (master: Master, repairs: Repairs = NO_REPAIRS): Source =>
  applyRepairs(master, repairs);

const applyRepairs = memoize((master: Master, repairs: Repairs): Source => {
  const rotation = repairs.rotation ?? master.rotation;
  const pixelAspect = repairs.pixelAspect ?? master.pixelAspect;
  const rate = repairs.rate ?? master.rate;
  return {
    ...master,
    rotation,
    pixelAspect,
    flip: repairs.flip ?? master.flip,
    picture: uprightSize(master.coded, pixelAspect, rotation),
    rate,
    frames: scaleFrames(master.frames, master.rate, rate),
    colour: {
      ...master.colour,
      matrix: repairs.matrix ?? master.colour.matrix,
      fullRange: repairs.fullRange ?? master.colour.fullRange,
    },
    recorded: master.colour,
    live: repairs.live ?? WHOLE_RECT,
    deinterlace: repairs.deinterlace,
  };
});
