import { judgeChildrenStatement } from '../../outlets/limits/children';
import { postRule, outcome } from '../rule';

/** The statement on children, where the outlet wants one. */
export const childrenRule = postRule({
  name: 'Statement on children',
  reads: ['words', 'target'],
  outlet: true,
  outcomes: {
    'not-asked': outcome<object>(
      (_, { label }) => `${label} asks for no statement.`,
      () => 'not asked',
    ),
    said: outcome<{ forChildren: boolean }>(
      ({ forChildren }) => `You said that the clip is ${forChildren ? '' : 'not '}made for children.`,
      ({ forChildren }) => (forChildren ? 'for children' : 'not for children'),
    ),
    missing: outcome<object>(
      (_, { label }) =>
        `${label} asks whether the clip is made for children. Say so here, or on the post page.`,
      () => 'nothing said',
    ),
  },
  check({ words, target }) {
    const { forChildren } = words;
    if (!target.placement.childrenStatement) return { severity: 'pass', code: 'not-asked', values: {} };
    return forChildren === undefined || judgeChildrenStatement(forChildren, target.placement)
      ? {
          severity: 'stop',
          code: 'missing',
          values: {},
          fix: { fix: 'say-not-for-children', values: {} },
        }
      : { severity: 'pass', code: 'said', values: { forChildren } };
  },
});
