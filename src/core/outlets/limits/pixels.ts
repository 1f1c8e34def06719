import { z } from 'zod';
import { declareLimit } from './limit';

/** Limit on pixels that are not square. */
export const pixelsLimit = declareLimit({
  name: 'pixels',
  shape: { video: { oblongPixels: z.boolean() } },
  plain: { video: { oblongPixels: false } },
  section: 'File and picture',
  fields: [
    { path: 'video.oblongPixels', label: 'Pixels that are not square are taken', as: { kind: 'flag' } },
  ],
  refuseFile: ({ video }, placement) =>
    video.oblongPixels && !placement.video.oblongPixels ? 'The pixels of the picture are not square.' : null,
});
