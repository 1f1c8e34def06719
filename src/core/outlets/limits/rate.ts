import { compareRates, type FrameRate, frameRateSchema, rateLabel } from '../../time/frame-rate';
import { declareLimit } from './limit';

/** Judges a frame rate. */
export const judgeRate = (rate: FrameRate, { video }: { video: { mostRate: FrameRate } }): 'over' | null =>
  compareRates(rate, video.mostRate) > 0 ? 'over' : null;

/** Limit on the frame rate. */
export const rateLimit = declareLimit({
  name: 'rate',
  shape: { video: { mostRate: frameRateSchema } },
  plain: { video: { mostRate: { num: 240, den: 1 } } },
  section: 'File and picture',
  fields: [{ path: 'video.mostRate', label: 'Highest frame rate', as: { kind: 'rate' } }],
  refuseFile: ({ rate }, placement) =>
    judgeRate(rate, placement) &&
    `The clip runs at ${rateLabel(rate)} fps; at most ${rateLabel(placement.video.mostRate)} fps are taken.`,
});
