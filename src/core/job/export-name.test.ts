import type { Clip } from './clip';
import { exportFileName, patternProblem, PLAIN_PATTERN, uniqueNames } from './export-name';
import { activeClip, type Job } from './job';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { testJob } from './test-job';

const job = testJob();
const nameOf = (job: Pick<Job, 'edit' | 'title'>) => exportFileName(job, { sheets: SHIPPED_SHEETS });

describe('an export', () => {
  const named = (name: string, part: Clip['part'] = null): Job => {
    const clip = { ...activeClip(job.edit), name, part };
    return { ...job, edit: { ...job.edit, clips: [clip] } };
  };

  it('is named by clip, part, placement and size', () => {
    expect(nameOf(named('Kite Day at Windle Bay'))).toBe('kite-day-at-windle-bay_verrow-short_1080x1920.mp4');
    expect(nameOf(named('Kite Day', { number: 2, of: 4 }))).toBe(
      'kite-day-2-of-4_verrow-short_1080x1920.mp4',
    );
    expect(nameOf(named('../../..'))).toBe('clip_verrow-short_1080x1920.mp4');
  });

  it('is named by a pattern of one’s own', () => {
    const own = (pattern: string) =>
      exportFileName(
        { ...named('Kite Day'), title: 'Windle Bay' },
        { sheets: SHIPPED_SHEETS, pattern, now: '2026-11-28T10:00:00.000Z' },
      );
    expect(own('{date} {job} {number} {outlet}')).toBe('2026-11-28 windle-bay 01 verrow.mp4');
    expect(own('../{clip}?')).toBe('-kite-day-.mp4'.replace(/^-/, ''));
    expect(own('{size}')).toBe('1080x1920.mp4');
  });
});

describe('a pattern of file names', () => {
  it('is good, or says what is wrong with it', () => {
    expect(patternProblem(PLAIN_PATTERN)).toBeNull();
    expect(patternProblem('{clip')).toMatch(/not closed/);
    expect(patternProblem('{name}')).toMatch(/\{name\} is none of \{clip\}/);
    expect(patternProblem('...')).toMatch(/a letter or a figure/);
    expect(patternProblem('x'.repeat(200))).toMatch(/At most/);
  });
});

describe('names of several files', () => {
  it('are never the same, whatever the case', () => {
    expect(uniqueNames(['a.mp4', 'A.mp4', 'b.mp4', 'a.mp4'])).toEqual([
      'a.mp4',
      'A (2).mp4',
      'b.mp4',
      'a (3).mp4',
    ]);
    expect(uniqueNames(['a (2).mp4', 'a.mp4', 'a.mp4'])).toEqual(['a (2).mp4', 'a.mp4', 'a (3).mp4']);
  });
});
