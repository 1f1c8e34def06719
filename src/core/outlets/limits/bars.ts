import { z } from 'zod';
import { declareLimit } from './limit';

const SIDES = ['left', 'top', 'right', 'bottom'] as const;

/** Limit on black bars: where they are refused, they keep a post back. */
export const barsLimit = declareLimit({
  name: 'bars',
  shape: { bars: z.enum(['refused', 'discouraged']) },
  plain: { bars: 'discouraged' },
  section: 'File and picture',
  fields: [
    {
      path: 'bars',
      label: 'Black bars',
      as: {
        kind: 'one',
        options: [
          { value: 'refused', label: 'Refused' },
          { value: 'discouraged', label: 'Discouraged' },
        ],
      },
    },
  ],
  refuseFile: ({ borders }, { bars }) =>
    bars === 'refused' && SIDES.some((side) => borders[side] > 0)
      ? `The picture has black bars: ${SIDES.map((side) => `${side} ${borders[side]}`).join(', ')} pixels.`
      : null,
});
