import { z } from 'zod';
import { declareLimit } from './limit';

/** Limit on interlaced pictures. */
export const scanLimit = declareLimit({
  name: 'scan',
  shape: { video: { interlaced: z.boolean() } },
  plain: { video: { interlaced: false } },
  section: 'File and picture',
  fields: [{ path: 'video.interlaced', label: 'Interlaced pictures are taken', as: { kind: 'flag' } }],
  refuseFile: ({ video }, placement) =>
    video.interlaced && !placement.video.interlaced ? 'The picture is interlaced.' : null,
});
