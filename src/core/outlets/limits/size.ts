import { sizeLabel } from '../../picture/size';
import { sizesLabel, takenSizesSchema, isSizeTaken } from '../taken-sizes';
import { declareLimit } from './limit';

/** Limit on the size of the picture. */
export const sizeLimit = declareLimit({
  name: 'size',
  shape: { sizes: takenSizesSchema },
  plain: { sizes: { kind: 'one', size: { width: 1080, height: 1920 } } },
  refuseFile: (file, { name, sizes }) =>
    isSizeTaken(sizes, file)
      ? null
      : `The picture is ${sizeLabel(file)}; ${name} takes ${sizesLabel(sizes)}.`,
});
