import type { Severity } from '@core/check/rule';
import type { Listed } from '@state/listed';
import type { Standing } from '../parts/mark';

/** One thing to know of a job at a glance. */
export interface JobStanding {
  standing: Standing;
  words: string;
}

const counted = (count: number, singular: string, many: string): string =>
  `${count} ${count === 1 ? singular : many}`;

const CHECKED: Record<Severity, string> = {
  stop: 'Something is stopped',
  warn: 'Warnings',
  unknown: 'Not checked yet',
  note: 'Checks passed',
  pass: 'Checks passed',
};

/** The worst that the check of a job's clips found; nothing before it was judged. */
export const checkStanding = (worst: Severity | null): JobStanding[] =>
  worst === null ? [] : [{ standing: worst === 'note' ? 'pass' : worst, words: CHECKED[worst] }];

/** Where a job's exports and posts stand, the most pressing first. */
export function standingsOf({ exports, posts }: Listed): JobStanding[] {
  const made = (...states: string[]) => exports.filter((record) => states.includes(record.state)).length;
  const posted = (state: string) => posts.filter((post) => post.state === state).length;
  const rows: [count: number, standing: Standing, words: string][] = [
    [
      made('running', 'reading-back'),
      'note',
      counted(made('running', 'reading-back'), 'export under way', 'exports under way'),
    ],
    [
      made('failed', 'interrupted'),
      'warn',
      counted(made('failed', 'interrupted'), 'export stopped', 'exports stopped'),
    ],
    [posted('refused'), 'stop', counted(posted('refused'), 'post refused', 'posts refused')],
    [made('done'), 'pass', counted(made('done'), 'file made', 'files made')],
    [posted('accepted'), 'pass', counted(posted('accepted'), 'post up', 'posts up')],
  ];
  const there = rows.filter(([count]) => count > 0).map(([, standing, words]) => ({ standing, words }));
  return there.length > 0 ? there : [{ standing: 'open', words: 'Nothing exported yet' }];
}
