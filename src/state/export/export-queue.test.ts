import { activeCanvas } from '@core/job/clip';
import { activeClip } from '@core/job/job';
import { testMaster } from '@core/job/test-job';
import { makeCanvas } from '@core/layout/canvas';
import { TroubleError } from '@core/trouble/trouble';
import { cancelExport, moveExport, pauseExport, resumeExport, takeUpExports } from './export-queue';
import { isExporting, useExportQueue } from './export-running';
import { dispatch, putExport } from '../job';
import { begin, exportRecord, readyToExport, waitForTasks, readStored } from './test-exports';
import { mockMedia } from '../test-media';
import type * as TestMedia from '../test-media';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('../test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('../test-media').mockStorage);

beforeEach(readyToExport);

describe('the queue', () => {
  /** Exports that are made until they are stopped, or let go on. */
  const slow = () => {
    const goOn: (() => void)[] = [];
    mockMedia.makeExport.mockImplementation(
      ({ outputs }: { outputs: { name: string }[] }, { signal }: { signal: AbortSignal }) =>
        new Promise((resolve, reject) => {
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled')));
          goOn.push(() => {
            for (const { name } of outputs) mockMedia.files.set(name, 'x');
            resolve({ bytes: [1] });
          });
        }),
    );
    return goOn;
  };
  /** A further canvas of the clip. */
  const addSquare = (id: string) => {
    const clip = activeClip(readStored().edit);
    const canvas = makeCanvas(null, { width: 1080, height: 1080 }, activeCanvas(clip).rate, id);
    const canvases = [...clip.canvases, canvas];
    dispatch('job-1', { type: 'set-canvases', act: 'add', canvases, canvas: 'canvas-1' });
  };
  const states = () => readStored().exports.map(({ state }) => state);
  const oldestFirst = () => [...readStored().exports].reverse().map(({ id }) => id);

  it('holds an export with what is whole of it, and takes it up again', async () => {
    const goOn = slow();
    begin();
    await waitForTasks();
    const { id } = readStored().exports[0]!;
    mockMedia.files.set(`${id}.mp4.packets`, 'whole');
    await pauseExport(id);
    expect(states()).toEqual(['paused']);
    expect(isExporting(useExportQueue.getState())).toBe(false);
    expect([...mockMedia.files.keys()].sort()).toEqual([`${id}.mp4.packets`, `${id}.order`]);
    resumeExport('job-1', readStored().exports[0]!);
    await waitForTasks();
    expect(states()).toEqual(['running']);
    goOn[1]?.();
    await waitForTasks();
    expect(states()).toEqual(['done']);
    expect(mockMedia.files.has(`${id}.order`)).toBe(false);
  });

  it('says when it waits while something plays, and does not count that as work', async () => {
    jest.useFakeTimers({ doNotFake: ['setTimeout', 'setImmediate', 'queueMicrotask', 'nextTick'] });
    slow();
    begin();
    await waitForTasks();
    const { id } = readStored().exports[0]!;
    const [, { onProgress }] = mockMedia.makeExport.mock.calls[0] as unknown as [
      unknown,
      { onProgress: (progress: { stage: string; done: number; total: number }) => void },
    ];
    const at = (stage: string, done: number, seconds: number) => {
      jest.advanceTimersByTime(seconds * 1000);
      onProgress({ stage, done, total: 100 });
      return useExportQueue.getState().running[id];
    };
    at('export', 0, 1);
    expect(at('export', 10, 1)).toMatchObject({ stage: 'export', speed: 10 });
    expect(at('held', 10, 1)).toMatchObject({ stage: 'held', done: 10, left: null });
    at('export', 16, 60);
    expect(at('export', 26, 1)).toMatchObject({ stage: 'export', speed: 10 });
    jest.useRealTimers();
    await cancelExport('job-1', id);
  });

  it('stops one of several that are made together, and goes on with the others', async () => {
    const goOn = slow();
    for (const id of ['canvas-2', 'canvas-3']) addSquare(id);
    begin(['canvas-1', 'canvas-2', 'canvas-3']);
    await waitForTasks();
    const [first = '', second = '', third = ''] = oldestFirst();
    await cancelExport('job-1', second);
    await waitForTasks();
    expect(oldestFirst()).toEqual([first, third]);
    expect(states()).toEqual(['running', 'running']);
    goOn.at(-1)?.();
    await waitForTasks();
    expect(states()).toEqual(['done', 'done']);
  });

  it('begins with what comes first, also after a reload', async () => {
    slow();
    begin();
    begin();
    await waitForTasks();
    const [first = '', second = ''] = oldestFirst();
    for (const id of [second, first]) await pauseExport(id);
    const [later, earlier] = [...readStored().exports].reverse();
    await putExport('job-1', { ...later!, place: 2 });
    await putExport('job-1', { ...earlier!, place: 1 });
    for (const id of [first, second])
      resumeExport(
        'job-1',
        readStored().exports.find((one) => one.id === id)!,
      );
    await waitForTasks();
    const [{ outputs }] = mockMedia.makeExport.mock.calls.at(-1) as [{ outputs: { name: string }[] }];
    expect(outputs).toMatchObject([{ name: `${second}.mp4` }]);
    for (const id of [first, second]) await cancelExport('job-1', id);
  });

  it('holds one that waits too, and stops it without a trace', async () => {
    slow();
    begin();
    begin();
    await waitForTasks();
    const [first = '', second = ''] = oldestFirst();
    await pauseExport(second);
    expect(states()).toEqual(['paused', 'running']);
    resumeExport('job-1', readStored().exports[0]!);
    await cancelExport('job-1', second);
    await cancelExport('job-1', first);
    await waitForTasks();
    expect(readStored().exports).toEqual([]);
    expect([...mockMedia.files.keys()]).toEqual([]);
  });

  it('is put into another order, which outlives the page', async () => {
    const goOn = slow();
    for (let n = 0; n < 4; n++) begin();
    await waitForTasks();
    const [, second = '', third = '', fourth = ''] = oldestFirst();
    moveExport(fourth, second);
    moveExport(second, null);
    const order = [fourth, third, second];
    const places = order.map((id) => readStored().exports.find((record) => record.id === id)!.place ?? NaN);
    const asked = () => mockMedia.makeExport.mock.calls.map(([{ outputs }]) => outputs[0].name as string);
    for (let n = 0; n < 4; n++) {
      goOn[n]?.();
      await waitForTasks();
    }
    expect(asked().slice(1)).toEqual(order.map((id) => `${id}.mp4`));
    const third2 = Number.isNaN(places[1]) ? Date.parse(readStored().exports[0]!.startedAt) : places[1]!;
    expect(places[0]).toBeLessThan(third2);
    expect(places[2]).toBeGreaterThan(third2);
  });

  it('takes up what an earlier page did not come to, and does not make again what is whole', async () => {
    const { id } = { id: 'left' };
    mockMedia.files
      .set(`${id}.order`, '{"plan":{"frames":984}}')
      .set(`${id}.mp4`, 'xx')
      .set('nobody.mp4', 'x')
      .set('whole.mp4', 'xx')
      .set('whole.mp4.packets', 'x');
    mockMedia.masters = [testMaster().fingerprint, 'f'.repeat(64)];
    await putExport('job-1', { ...exportRecord(), id: 'whole', state: 'done', bytes: 2 });
    const record = { ...exportRecord(), id, state: 'reading-back' as const };
    await putExport('job-1', record);
    await putExport('job-1', { ...record, id: 'lost', state: 'running' });
    await takeUpExports();
    await waitForTasks();
    expect(Object.fromEntries(readStored().exports.map(({ id, state }) => [id, state]))).toEqual({
      left: 'done',
      lost: 'interrupted',
      whole: 'done',
    });
    expect(mockMedia.makeExport).not.toHaveBeenCalled();
    expect([...mockMedia.files.keys()]).toEqual(['left.mp4', 'whole.mp4']);
    // A master that no job has goes too.
    expect(mockMedia.deleted).toContain('f'.repeat(64));
    expect(mockMedia.deleted).not.toContain(testMaster().fingerprint);
    mockMedia.masters = [];
  });

  it('goes on from what is whole where an export failed', async () => {
    mockMedia.makeExport.mockImplementationOnce(() => {
      const { id } = readStored().exports[0]!;
      mockMedia.files.set(`${id}.mp4.packets`, 'whole');
      return Promise.reject(new TroubleError('worker-ended', { detail: 'x' }));
    });
    begin();
    await waitForTasks();
    const [failed] = readStored().exports;
    expect(failed?.state).toBe('failed');
    expect(mockMedia.files.has(`${failed?.id}.mp4.packets`)).toBe(true);
    resumeExport('job-1', failed!);
    await waitForTasks();
    expect(states()).toEqual(['done']);
  });
});
