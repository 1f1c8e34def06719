import type { ExportProgress } from '@state/export';
import { progressWords } from './queue-words';

const now = (change: Partial<ExportProgress>): ExportProgress => ({
  ...{ jobId: 'job', stage: 'export', done: 48, total: 144, speed: null, left: null },
  ...change,
});

describe('what a strip of the queue says', () => {
  it('tells the frame where frames are the clip’s own, with pace and time left once they are known', () => {
    expect(progressWords(now({}), 144)).toBe('Exporting: frame 48 of 144');
    expect(progressWords(now({ speed: 23.7, left: 4 }), 144)).toBe(
      'Exporting: frame 48 of 144, 24 frames a second, about 4 s left',
    );
    expect(progressWords(now({ stage: 'read-back', done: 8 }), 144)).toBe(
      'Reading the file back: frame 8 of 144',
    );
  });

  it('tells a share of frames of several clips, of two passes, or of some that are made again', () => {
    expect(progressWords(now({ total: 216 }), 144)).toBe('Exporting: 22 %');
    expect(progressWords(now({ done: 216, total: 216, left: 0 }), 144)).toMatch(/^Exporting: 100 %, about /);
    // Records of before have no frames.
    expect(progressWords(now({}), undefined)).toBe('Exporting: 33 %');
  });

  it('says nothing that is not known: sound alone has no frames', () => {
    expect(progressWords(now({ done: 0, total: 0 }), 144)).toBe('Exporting');
    expect(progressWords(now({ left: Infinity, speed: Infinity }), 144)).toBe('Exporting: frame 48 of 144');
  });

  it('says what it waits for, and how much was sent', () => {
    expect(progressWords(now({ stage: 'held', left: 9 }), 144)).toBe('Waiting while something plays');
    expect(progressWords(now({ stage: 'waiting', left: 9 }), 144)).toBe(
      'Waiting for its turn, about 9 s left',
    );
    expect(progressWords(now({ stage: 'send', done: 2e6, total: 8e6 }), 144)).toBe(
      'Sending the master to the server: 2.0 MB of 8.0 MB',
    );
  });
});
