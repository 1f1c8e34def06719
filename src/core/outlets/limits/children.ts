import { z } from 'zod';
import { declareLimit } from './limit';

/** Judges the statement on children: whether the clip is made for them; null where nothing was said. */
export const judgeChildrenStatement = (
  forChildren: boolean | null,
  { childrenStatement }: { childrenStatement: boolean },
): 'missing' | null => (childrenStatement && forChildren === null ? 'missing' : null);

/** Limit that makes a post say whether it is made for children. */
export const childrenLimit = declareLimit({
  name: 'children',
  shape: { childrenStatement: z.boolean() },
  plain: { childrenStatement: false },
  section: 'Post',
  fields: [
    { path: 'childrenStatement', label: 'Asks whether it is made for children', as: { kind: 'flag' } },
  ],
  refusePost: ({ forChildren }, placement) =>
    judgeChildrenStatement(forChildren, placement) &&
    'The post does not say whether the clip is made for children.',
});
