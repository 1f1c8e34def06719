import { problemRule } from './problem-rule';

/** Interlaced fields that show as combs on whatever moves. */
export const combingRule = problemRule('Whole frames', 'interlace', {
  unknown: 'Not known yet: the master is still being analysed.',
  found: ({ share }) => `${share} % of the moving frames comb: two fields are shown as one picture.`,
  clear: 'No combing found.',
});
