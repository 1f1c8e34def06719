import type { Clip } from './clip';
import { exportFileName } from './export-name';
import { activeClip, type Job } from './job';
import { testJob } from './test-job';

const job = testJob();

describe('an export', () => {
  const named = (name: string, part: Clip['part'] = null): Pick<Job, 'edit'> => {
    const clip = { ...activeClip(job.edit), name, part };
    return { edit: { ...job.edit, clips: [clip] } };
  };

  it('is named by clip, part, placement and size', () => {
    expect(exportFileName(named('Kite Day at Windle Bay'))).toBe(
      'kite-day-at-windle-bay_verrow-short_1080x1920.mp4',
    );
    expect(exportFileName(named('Kite Day', { number: 2, of: 4 }))).toBe(
      'kite-day-2-of-4_verrow-short_1080x1920.mp4',
    );
    expect(exportFileName(named('../../..'))).toBe('clip_verrow-short_1080x1920.mp4');
  });
});
