import { TroubleError } from '@core/trouble/trouble';
import { dismissReturned, lookAtFile, sendThroughChat, useReturned } from './returned';
import { begin, readyToExport, waitForTasks, readStored } from './test-exports';
import { mockMedia } from '../test-media';
import type * as TestMedia from '../test-media';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('../test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('../test-media').mockStorage);
jest.mock('@media/send/upload', () => jest.requireActual<typeof TestMedia>('../test-media').mockUpload);

const found = { returned: { heard: 1 }, pictures: null };
const back = (name: string) => new File(['x'], name);
const made = async () => {
  begin();
  await waitForTasks();
  return readStored().exports[0]!;
};

beforeEach(async () => {
  await readyToExport();
  dismissReturned();
  mockMedia.lookAtReturnedFile.mockReset().mockResolvedValue(found);
});
afterEach(() => jest.restoreAllMocks());

describe('a file that came back', () => {
  it('is held against the export’s own file', async () => {
    const record = await made();
    await lookAtFile(record, back('back.mp4'));
    const [request] = mockMedia.lookAtReturnedFile.mock.calls[0] as [{ name: string; file: File }];
    expect([request.name, request.file.name]).toEqual([`${record.id}.mp4`, 'back.mp4']);
    expect(useReturned.getState()).toMatchObject({ fileName: 'back.mp4', progress: null, result: found });
  });

  it('says what went wrong with it', async () => {
    const record = await made();
    mockMedia.lookAtReturnedFile.mockRejectedValue(new TroubleError('not-media', { file: 'a.txt' }));
    await lookAtFile(record, back('a.txt'));
    expect(useReturned.getState()).toMatchObject({ result: null, trouble: { code: 'not-media' } });
  });

  it('that is chosen while another is looked at is the one that counts', async () => {
    const record = await made();
    const ends: ((value: unknown) => void)[] = [];
    mockMedia.lookAtReturnedFile.mockImplementation(() => new Promise((resolve) => ends.push(resolve)));
    const first = lookAtFile(record, back('first.mp4'));
    const second = lookAtFile(record, back('second.mp4'));
    await waitForTasks();
    ends[1]?.(found);
    await second;
    ends[0]?.({ ...found, returned: { heard: 0 } });
    await first;
    expect(useReturned.getState()).toMatchObject({ fileName: 'second.mp4', result: found });
  });

  it('is let go when its look is cancelled, whatever comes of that later', async () => {
    const record = await made();
    let end: (value: unknown) => void = () => undefined;
    mockMedia.lookAtReturnedFile.mockImplementation(() => new Promise((resolve) => (end = resolve)));
    const look = lookAtFile(record, back('a.mp4'));
    await waitForTasks();
    dismissReturned();
    end(found);
    await look;
    expect(useReturned.getState()).toMatchObject({ exportId: null, progress: null, result: null });
  });

  it('is what a chat app’s stand-in makes of the export', async () => {
    const record = await made();
    mockMedia.uploadFile.mockResolvedValue('d'.repeat(32));
    const answer = { ok: true, status: 200, blob: () => Promise.resolve(new Blob(['small'])) } as Response;
    const fetched = jest.spyOn(globalThis, 'fetch').mockResolvedValue(answer);
    await sendThroughChat(record);
    expect(fetched.mock.calls[0]?.[0]).toBe(`/chat/api/files/${'d'.repeat(32)}`);
    expect(useReturned.getState()).toMatchObject({ fileName: 'Windle Chat.mp4', result: found });
  });

  it('that the stand-in does not give back is told', async () => {
    const record = await made();
    jest.spyOn(globalThis, 'fetch').mockRejectedValue(new TypeError('no line'));
    await sendThroughChat(record);
    expect(useReturned.getState()).toMatchObject({ progress: null, trouble: { code: 'server-down' } });
    mockMedia.files.clear();
    await sendThroughChat(record);
    expect(useReturned.getState().trouble?.code).toBe('export-gone');
  });
});
