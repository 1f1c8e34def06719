import { testJob } from '@core/job/test-job';
import { captionsFile, captionsName, openCaptions } from './caption-files';

const mockRead = jest.fn();
jest.mock('@media/worker/tasks', () => ({
  readCaptions: (...args: unknown[]) => mockRead(...args) as unknown,
}));

const fileOf = (size: number) =>
  ({ name: 'kites.srt', size, arrayBuffer: () => Promise.resolve(new ArrayBuffer(size)) }) as unknown as File;

describe('files of captions', () => {
  it('are read in a worker, and say what is wrong with one that holds none', async () => {
    const cue = { start: 0, end: 1, text: 'A', line: 1, notes: [] };
    mockRead.mockResolvedValueOnce({ format: 'srt', cues: [cue], notes: [] });
    expect(await openCaptions(fileOf(10))).toMatchObject({ fileName: 'kites.srt', file: { cues: [cue] } });
    mockRead.mockResolvedValueOnce({ format: 'srt', cues: [], notes: [] });
    expect(await openCaptions(fileOf(10))).toMatchObject({ trouble: { code: 'not-captions' } });
    mockRead.mockRejectedValueOnce(new Error('gone'));
    expect(await openCaptions(fileOf(10))).toMatchObject({ trouble: { values: { detail: 'gone' } } });
  });

  it('are refused unread where they are far too large', async () => {
    mockRead.mockClear();
    expect(await openCaptions(fileOf(9_000_000))).toMatchObject({
      trouble: { values: { detail: expect.stringContaining('9 MB') as unknown } },
    });
    expect(mockRead).not.toHaveBeenCalled();
  });

  it('go out under the name of the clip', () => {
    const file = captionsFile([{ start: 0, end: 1, text: 'A' }], 'vtt', captionsName(testJob()));
    expect([file.name, file.type]).toEqual(['edit.vtt', 'text/vtt']);
  });
});
