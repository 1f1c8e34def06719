import { declareLimit } from './limit';

/** Limit that every outlet has: the picture can be decoded to its end. */
export const damagedLimit = declareLimit({
  name: 'damaged',
  shape: {},
  plain: {},
  refuseFile: ({ decodes }) =>
    decodes ? null : 'The picture cannot be decoded to its end: the file is damaged or was cut off.',
});
