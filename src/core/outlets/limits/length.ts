import { z } from 'zod';
import { boundedNumber } from '../../figures/bounded';
import { type FrameRate, countFramesWithin, toSeconds } from '../../time/frame-rate';
import { numberField, optionalNumberField } from './field';
import { declareLimit } from './limit';

const seconds = boundedNumber(0, 86_400).positive();

/** Lengths in seconds; a clip exactly as long as a limit keeps it. */
const lengthSchema = z
  .object({
    least: seconds.nullable(),
    most: seconds,
    /** Where clips do best. */
    best: z.object({ from: seconds, to: seconds }).nullable(),
  })
  .refine(({ least, most }) => least === null || least <= most, {
    error: 'The least length is over the greatest.',
    path: ['least'],
  })
  .refine(({ best }) => best === null || best.from <= best.to, {
    error: 'The best length ends before it begins.',
    path: ['best'],
  });

/** Judges a length. @param frames of the clip, at its rate. A clip exactly at a limit keeps it. */
export function judgeLength(
  { frames, rate }: { frames: number; rate: FrameRate },
  { length: { least, most } }: { length: { least: number | null; most: number } },
): 'over' | 'short' | null {
  if (frames > countFramesWithin(most, rate)) return 'over';
  return least !== null && toSeconds(frames, rate) < least ? 'short' : null;
}

/** Limit on the length of a clip, with the lengths at which clips do best. */
export const lengthLimit = declareLimit({
  name: 'length',
  shape: { length: lengthSchema },
  plain: { length: { least: null, most: 86_400, best: null } },
  section: 'Length',
  fields: [
    { path: 'length.most', label: 'Longest', as: numberField('s') },
    { path: 'length.least', label: 'Shortest', as: optionalNumberField('s') },
  ],
  groups: [
    {
      path: 'length.best',
      label: 'Where clips do best',
      begins: { from: 15, to: 20 },
      fields: [
        { path: 'from', label: 'From', as: numberField('s') },
        { path: 'to', label: 'To', as: numberField('s') },
      ],
    },
  ],
  refuseFile(file, placement) {
    const { least, most } = placement.length;
    const broken = judgeLength(file, placement);
    const lasts = `The clip lasts ${toSeconds(file.frames, file.rate).toFixed(2)} s`;
    return (
      broken &&
      `${lasts}; ${broken === 'over' ? `the limit is ${most} s` : `it must last ${least} s at least`}.`
    );
  },
});
