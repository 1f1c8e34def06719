// The one of the test's own page cannot be read.
import { File as ReadableFile } from 'node:buffer';
import { testMaster } from '@core/job/test-job';
import { takeFile, useJobFiles } from './job-files';
import { NO_JOBS, useJobs } from '../job';
import { storage } from '../store';

const mockMedia = { bringInFile: jest.fn() };
jest.mock('@media/worker/tasks', () => ({
  bringInFile: (...args: unknown[]) => mockMedia.bringInFile(...args) as unknown,
}));
jest.mock('@media/store/storage', () => ({
  storedFile: () => Promise.resolve({}),
  deleteStored: () => Promise.resolve(),
  deleteAllStored: () => Promise.resolve(),
}));

beforeEach(async () => {
  await storage.clear();
  useJobs.setState({ ...NO_JOBS, loaded: true });
  useJobFiles.setState({ busy: null, trouble: null });
  mockMedia.bringInFile.mockReset().mockResolvedValue({ master: testMaster(), fresh: true });
});

/** A file of a cloud that does not come. */
function unreadable(): File {
  const file = new File(['x'], 'clouded.mp4');
  file.slice = () => {
    throw new DOMException('The file could not be read.', 'NotReadableError');
  };
  return file;
}

describe('a file that is taken', () => {
  it('is told of where it cannot be read', async () => {
    expect(await takeFile(unreadable())).toBeNull();
    expect(useJobFiles.getState().trouble).toEqual({
      code: 'unreadable-file',
      values: { file: 'clouded.mp4' },
    });
  });

  it('becomes a job where it is a video', async () => {
    const id = await takeFile(new ReadableFile(['not a job'], 'edit.mp4') as unknown as File);
    expect(useJobs.getState().files[id ?? '']?.job.title).toBe('edit');
  });
});
