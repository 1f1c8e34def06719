import type { Words } from '../../job/clip';
import type { Fix } from '../fix';

/** States that a clip is not made for children. */
export const sayNotForChildren: Fix<{ words: Words }> = {
  safe: false,
  label: () => 'Say that it is not made for children',
  command: ({ words }) => ({ type: 'set-words', words: { ...words, forChildren: false } }),
};
