import { z } from 'zod';
import { boundedInt, MAX_COUNT } from '../../figures/bounded';
import { bytesLabel } from '../../figures/figures';
import { sizeLabel } from '../../picture/size';
import { numberField } from './field';
import { declareLimit, outletSide } from './limit';

/** Limit on the cover: the still that is shown before a clip plays. */
export const coverLimit = declareLimit({
  name: 'cover',
  shape: {
    cover: z
      .object({ width: outletSide(), height: outletSide(), mostBytes: boundedInt(1, MAX_COUNT) })
      .nullable(),
  },
  plain: { cover: null },
  section: 'Post',
  groups: [
    {
      path: 'cover',
      label: 'Takes a cover',
      begins: { width: 1080, height: 1920, mostBytes: 2_000_000 },
      fields: [
        { path: 'width', label: 'Width', as: numberField('px') },
        { path: 'height', label: 'Height', as: numberField('px') },
        { path: 'mostBytes', label: 'Largest', as: numberField('kB', 1000) },
      ],
    },
  ],
  refusePost({ cover: sent }, { cover }) {
    if (!cover || !sent) return null;
    if (!sent.size) return 'The cover is not a picture that can be read.';
    const { bytes, size } = sent;
    if (bytes > cover.mostBytes)
      return `The cover has ${bytesLabel(bytes)}; the cap is ${bytesLabel(cover.mostBytes)}.`;
    return size.width === cover.width && size.height === cover.height
      ? null
      : `The cover is ${sizeLabel(size)}, not ${sizeLabel(cover)}.`;
  },
});
