import { problemRule } from './problem-rule';

/** Pixels that are most likely not square, though the file says so. */
export const pixelAspectRule = problemRule('Square pixels', 'pixel-aspect', {
  found: ({ stored }) =>
    `Pictures of ${stored} mostly have pixels that are not square; this file says that its pixels are. ` +
    'If circles are oval, repair it.',
  clear: 'The picture is shown with square pixels.',
});
