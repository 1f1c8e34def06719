import { testMaster } from '@core/job/test-job';
import { TroubleError } from '@core/trouble/trouble';
import { ensureSpeech, forgetSpeech, seekSpeech, selectSpeech, stopSpeech, useSpeech } from './speech';

const mockMedia = { find: jest.fn(), stored: new Map<string, string>() };
jest.mock('@media/worker/tasks', () => ({
  findSpeech: (...args: unknown[]) => mockMedia.find(...args) as unknown,
}));
jest.mock('@media/store/storage', () => ({
  storedFile: (_folder: string, name: string) => {
    const text = mockMedia.stored.get(name);
    return Promise.resolve(text === undefined ? null : { text: () => Promise.resolve(text) });
  },
  writeSmall: (_folder: string, name: string, blob: Blob) =>
    new Promise<void>((resolve) => {
      const reader = new globalThis.FileReader();
      reader.onload = () => resolve(void mockMedia.stored.set(name, String(reader.result)));
      reader.readAsText(blob);
    }),
}));

const SPANS = [{ from: 1, to: 2.5 }];
const master = { ...testMaster(), soundTrack: 0 };
const { fingerprint } = master;
const state = () => useSpeech.getState()[fingerprint];
/** Waits a moment, and longer while the search goes on: a busy machine takes its time. */
async function settled(): Promise<void> {
  for (let n = 0; n === 0 || (n < 50 && state()?.state === 'running'); n++) {
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
}

beforeEach(async () => {
  await forgetSpeech(fingerprint);
  mockMedia.find.mockReset().mockResolvedValue(SPANS);
  mockMedia.stored.clear();
});

describe('the search for speech', () => {
  it('is made once, stored, and read in the next visit', async () => {
    ensureSpeech(master);
    expect(state()).toEqual({ state: 'running', done: 0, total: master.frames });
    ensureSpeech(master);
    await settled();
    expect(selectSpeech(state(), master)?.spans).toEqual(SPANS);
    await forgetSpeech(fingerprint);
    ensureSpeech(master);
    await settled();
    expect(selectSpeech(state(), master)?.spans).toEqual(SPANS);
    expect(mockMedia.find).toHaveBeenCalledTimes(1);
  });

  it('is made again for another track, and for what cannot be read', async () => {
    ensureSpeech(master);
    await settled();
    ensureSpeech({ ...master, soundTrack: 1 });
    await settled();
    expect(selectSpeech(state(), { soundTrack: 1 })?.spans).toEqual(SPANS);
    expect(selectSpeech(state(), master)).toBeNull();
    await forgetSpeech(fingerprint);
    mockMedia.stored.set([...mockMedia.stored.keys()][0] ?? '', '{ "schemaVersion": 9');
    ensureSpeech(master);
    await settled();
    expect(selectSpeech(state(), master)?.spans).toEqual(SPANS);
    expect(mockMedia.find).toHaveBeenCalledTimes(3);
  });

  it('tells why it failed, is not tried again by itself, and is when asked', async () => {
    mockMedia.find.mockRejectedValueOnce(
      new TroubleError('server-down', { who: 'The server', errand: 'speech' }),
    );
    ensureSpeech(master);
    await settled();
    expect(state()).toMatchObject({ state: 'failed', trouble: { code: 'server-down' } });
    ensureSpeech(master);
    await settled();
    expect(mockMedia.find).toHaveBeenCalledTimes(1);
    seekSpeech(master);
    await settled();
    expect(selectSpeech(state(), master)?.spans).toEqual(SPANS);
  });

  it('stops where an answer never comes, and begins again when asked', async () => {
    mockMedia.find.mockImplementationOnce(
      (_request: unknown, { signal }: { signal: AbortSignal }) =>
        new Promise((_resolve, reject) =>
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled'))),
        ),
    );
    ensureSpeech(master);
    await settled();
    stopSpeech(fingerprint);
    await settled();
    expect(state()).toEqual({ state: 'stopped' });
    ensureSpeech(master);
    expect(state()).toEqual({ state: 'stopped' });
    seekSpeech(master);
    await settled();
    expect(selectSpeech(state(), master)?.spans).toEqual(SPANS);
  });

  it('is not made of a master without sound, and leaves nothing of one that is deleted meanwhile', async () => {
    ensureSpeech({ ...master, soundTrack: null });
    expect(state()).toBeUndefined();
    ensureSpeech(master);
    await forgetSpeech(fingerprint);
    await settled();
    expect(state()).toBeUndefined();
  });
});
