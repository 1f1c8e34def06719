import { OWN_KEY } from '../../outlets/outlets';
import { exportRule, outcome } from '../rule';

/** The rule sheet that a canvas is judged by is in this browser. */
export const sheetRule = exportRule({
  name: 'Rule sheet',
  reads: ['canvas', 'target'],
  outcomes: {
    judged: outcome<{ name: string; date: string }>(
      ({ name, date }) => `Judged by the rules of ${name} as of ${date}.`,
      ({ date }) => date,
    ),
    own: outcome<object>(
      () => 'A custom size: no outlet sets limits.',
      () => 'no outlet',
    ),
    gone: outcome<{ placement: string }>(
      ({ placement }) =>
        `This browser has no rule sheet with ${placement}: the clip is judged by no outlet's limits. Bring the sheet ` +
        'in again, or choose another placement.',
      ({ placement }) => placement,
    ),
  },
  check({ canvas, target: { key, sheet } }) {
    if (key !== OWN_KEY)
      return { severity: 'pass', code: 'judged', values: { name: sheet.name, date: sheet.date } };
    return canvas.placement === null
      ? { severity: 'pass', code: 'own', values: {} }
      : { severity: 'warn', code: 'gone', values: { placement: canvas.placement } };
  },
});
