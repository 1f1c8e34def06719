import type { Clip } from './clip';
import { exportFileName } from './export-name';
import { activeClip, type Job } from './job';
import { SHIPPED_SHEETS } from '../outlets/shipped';
import { testJob } from './test-job';

const job = testJob();
const nameOf = (job: Pick<Job, 'edit'>) => exportFileName(job, SHIPPED_SHEETS);

describe('an export', () => {
  const named = (name: string, part: Clip['part'] = null): Pick<Job, 'edit'> => {
    const clip = { ...activeClip(job.edit), name, part };
    return { edit: { ...job.edit, clips: [clip] } };
  };

  it('is named by clip, part, placement and size', () => {
    expect(nameOf(named('Kite Day at Windle Bay'))).toBe('kite-day-at-windle-bay_verrow-short_1080x1920.mp4');
    expect(nameOf(named('Kite Day', { number: 2, of: 4 }))).toBe(
      'kite-day-2-of-4_verrow-short_1080x1920.mp4',
    );
    expect(nameOf(named('../../..'))).toBe('clip_verrow-short_1080x1920.mp4');
  });
});
