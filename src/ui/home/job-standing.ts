import type { Severity } from '@core/check/rule';
import { formatCount } from '@core/figures/figures';
import { isPosted } from '@core/job/records';
import type { JobListEntry } from '@state/job-list-entry';
import type { Standing } from '../parts/mark';

/** Fact of a job that is shown at a glance. */
export interface JobStanding {
  standing: Standing;
  words: string;
}

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
export function listStandings({ exports, posts }: JobListEntry): JobStanding[] {
  const countExports = (...states: string[]) =>
    exports.filter((record) => states.includes(record.state)).length;
  const countPosts = (...states: string[]) => posts.filter((post) => states.includes(post.state)).length;
  const up = posts.filter(isPosted).length;
  const rows: [count: number, standing: Standing, words: string][] = [
    [
      countExports('running', 'reading-back'),
      'note',
      formatCount(countExports('running', 'reading-back'), 'export under way', 'exports under way'),
    ],
    [
      countExports('failed', 'interrupted'),
      'warn',
      formatCount(countExports('failed', 'interrupted'), 'export stopped', 'exports stopped'),
    ],
    [countPosts('refused'), 'stop', formatCount(countPosts('refused'), 'post refused', 'posts refused')],
    [
      countPosts('held', 'missed', 'failed'),
      'stop',
      formatCount(countPosts('held', 'missed', 'failed'), 'post needs you', 'posts need you'),
    ],
    [countExports('done'), 'pass', formatCount(countExports('done'), 'file made', 'files made')],
    [up, 'pass', formatCount(up, 'post up', 'posts up')],
  ];
  const there = rows.filter(([count]) => count > 0).map(([, standing, words]) => ({ standing, words }));
  return there.length > 0 ? there : [{ standing: 'open', words: 'Nothing exported yet' }];
}
