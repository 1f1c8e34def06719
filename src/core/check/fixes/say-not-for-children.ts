import type { Fix } from '../fix';

/** States that a clip is not made for children. */
export const sayNotForChildren: Fix<object> = {
  safe: false,
  label: () => 'Say that it is not made for children',
  command: () => ({ type: 'mend-words', words: { forChildren: false } }),
};
