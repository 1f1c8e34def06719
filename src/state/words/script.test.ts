import { activeClip } from '@core/job/job';
import { DEFAULT_READING_LIMITS } from '@core/words/reading-limits';
import { TroubleError } from '@core/trouble/trouble';
import { dispatch, setClip } from '../job';
import { layScriptOnClip, stopScript, useScript } from './script';
import { readyToExport, waitForTasks, readStored } from '../export/test-exports';
import { mockMedia } from '../test-media';
import type * as TestMedia from '../test-media';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('../test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('../test-media').mockStorage);

beforeEach(readyToExport);

const RATE = { num: 25, den: 1 };
const LAID = {
  texts: ['One.', 'Two.'],
  places: [
    { from: 0, to: 20 },
    { from: 30, to: 50 },
  ],
};
const cues = () => activeClip(readStored().edit).text?.captions.cues.map(({ text }) => text) ?? [];

function lay(): Promise<void> {
  const { cut } = activeClip(readStored().edit);
  const masters = () => ({ rate: RATE, frames: 984 });
  const timeline = { cut, starts: [0, 984], masters, rate: RATE };
  const request = {
    script: 'One.\nTwo.',
    spoken: [],
    whole: 984,
    limits: DEFAULT_READING_LIMITS,
    rate: RATE,
  };
  return layScriptOnClip(readStored(), request, timeline);
}

describe('a script', () => {
  it('becomes the captions of its clip, with its progress told', async () => {
    mockMedia.layScript.mockImplementationOnce(
      (_request: unknown, { onProgress }: { onProgress: (progress: object) => void }) => {
        onProgress({ stage: 'script', done: 1, total: 2 });
        expect(useScript.getState().progress).toEqual({ done: 1, total: 2 });
        return Promise.resolve(LAID);
      },
    );
    await lay();
    expect(cues()).toEqual(['One.', 'Two.']);
    expect(useScript.getState()).toEqual({ progress: null, trouble: null });
  });

  it('that is stopped changes nothing', async () => {
    mockMedia.layScript.mockImplementationOnce(
      (_request: unknown, { signal }: { signal: AbortSignal }) =>
        new Promise((_resolve, reject) =>
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled'))),
        ),
    );
    const laying = lay();
    await waitForTasks();
    stopScript();
    await laying;
    expect(cues()).toEqual([]);
    expect(useScript.getState()).toEqual({ progress: null, trouble: null });
  });

  it('does not come into another clip that is turned to meanwhile', async () => {
    const { edit } = readStored();
    const other = { ...activeClip(edit), id: 'clip-2', name: 'Other' };
    const clips = [activeClip(edit), other];
    dispatch('job-1', { type: 'set-clips', act: 'add', clips, clip: 'clip-1' });
    mockMedia.layScript.mockImplementationOnce(() => {
      setClip('job-1', 'clip-2');
      return Promise.resolve(LAID);
    });
    await lay();
    expect(readStored().edit.clip).toBe('clip-2');
    expect(cues()).toEqual([]);
  });

  it('that cannot be laid says why', async () => {
    mockMedia.layScript.mockRejectedValueOnce(new TroubleError('worker-ended', { detail: 'no room' }));
    await lay();
    expect(useScript.getState().trouble?.code).toBe('worker-ended');
  });
});
