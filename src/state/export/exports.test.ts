import { applyCommand } from '@core/job/commands/commands';
import { activeClip } from '@core/job/job';
import { createFramingCommand, testMaster } from '@core/job/test-job';
import { testPass } from '@core/job/test-pass';
import { TroubleError } from '@core/trouble/trouble';
import { addClip } from '../cut';
import { cancelExport } from './export-queue';
import { isExporting, useExportQueue } from './export-running';
import { deleteExport, exportNow, startExport, stopWaiting, useExports } from './exports';
import { dispatch } from '../job';
import { usePasses } from '../master';
import { begin, proof, createReadyJob, readyToExport, waitForTasks, readStored } from './test-exports';
import { mockMedia } from '../test-media';
import type * as TestMedia from '../test-media';

jest.mock('@media/worker/tasks', () => jest.requireActual<typeof TestMedia>('../test-media').mockTasks);
jest.mock('@media/store/storage', () => jest.requireActual<typeof TestMedia>('../test-media').mockStorage);

beforeEach(readyToExport);

describe('an export', () => {
  it('goes from running to proved, with its size', async () => {
    expect(begin()).toEqual(['canvas-1']);
    expect(readStored().exports[0]?.state).toBe('running');
    await waitForTasks();
    expect(readStored().exports[0]).toMatchObject({ state: 'done', bytes: 1000, proof });
    expect(isExporting(useExportQueue.getState())).toBe(false);
  });

  it('waits for the look at its master, and is made of the job as that left it', async () => {
    const { fingerprint } = testMaster();
    usePasses.setState({ [fingerprint]: { state: 'running', done: 1, total: 2, left: null } }, true);
    expect(begin()).toEqual([]);
    expect(useExports.getState().waiting).toMatchObject([{ jobId: 'job-1', canvases: ['canvas-1'] }]);
    expect(mockMedia.makeExport).not.toHaveBeenCalled();
    dispatch('job-1', { type: 'set-video-bits', bits: 3_000_000 });
    usePasses.setState({ [fingerprint]: { state: 'done', pass: testPass() } });
    await waitForTasks();
    expect(useExports.getState().waiting).toEqual([]);
    expect(readStored().exports[0]).toMatchObject({ state: 'done', videoBits: 3_000_000 });
  });

  it('that waits can be let go, or begun without the look', async () => {
    usePasses.setState({}, true);
    begin();
    stopWaiting('job-1', 'clip-1');
    expect(useExports.getState().waiting).toEqual([]);
    begin();
    expect(exportNow(readStored(), ['canvas-1'])).toEqual(['canvas-1']);
    expect(useExports.getState().waiting).toEqual([]);
    await waitForTasks();
    expect(readStored().exports[0]?.state).toBe('done');
  });

  it('waits by its clip: another clip of the job neither goes out for it nor ends its waiting', async () => {
    usePasses.setState({}, true);
    begin();
    addClip(readStored());
    const other = readStored();
    expect(activeClip(other.edit).id).not.toBe('clip-1');
    const [canvas] = activeClip(other.edit).canvases;
    expect(exportNow(other, [canvas!.id])).toEqual([canvas!.id]);
    expect(useExports.getState().waiting).toMatchObject([{ clip: 'clip-1' }]);
    usePasses.setState({ [testMaster().fingerprint]: { state: 'done', pass: testPass() } });
    await waitForTasks();
    expect(useExports.getState().waiting).toEqual([]);
    expect(readStored().exports.map((record) => record.clip)).toContain('clip-1');
  });

  it('is not begun while a stop keeps it back', () => {
    const job = createReadyJob();
    const barred = {
      ...job,
      edit: applyCommand(job.edit, createFramingCommand({}, { fit: true })),
    };
    expect(startExport(barred, ['canvas-1'])).toEqual([]);
    expect(mockMedia.makeExport).not.toHaveBeenCalled();
  });

  it('that fails keeps its reason in words, and no bytes', async () => {
    mockMedia.makeExport.mockRejectedValue(new TroubleError('storage-full', { need: 5e6, free: null }));
    begin();
    await waitForTasks();
    const [record] = readStored().exports;
    expect(record).toMatchObject({
      state: 'failed',
      error: expect.stringContaining('There is not enough room: 5.0 MB'),
    });
  });

  it('that is cancelled leaves no record', async () => {
    mockMedia.makeExport.mockImplementation(
      (_request: unknown, { signal }: { signal: AbortSignal }) =>
        new Promise((_, reject) =>
          signal.addEventListener('abort', () => reject(new TroubleError('cancelled'))),
        ),
    );
    begin();
    await waitForTasks();
    void cancelExport('job-1', readStored().exports[0]!.id);
    await waitForTasks();
    expect(readStored().exports).toEqual([]);
  });

  it('waits for the one before it', async () => {
    let finish: (value: { bytes: number[] }) => void = () => undefined;
    mockMedia.makeExport.mockImplementationOnce(() => new Promise((resolve) => (finish = resolve)));
    begin();
    begin();
    await waitForTasks();
    expect(mockMedia.makeExport).toHaveBeenCalledTimes(1);
    expect(Object.values(useExportQueue.getState().running).map((running) => running.stage)).toEqual([
      'waiting',
      'waiting',
    ]);
    finish({ bytes: [1] });
    await waitForTasks();
    expect(readStored().exports.map((record) => record.state)).toEqual(['done', 'done']);
  });

  it('whose clean-up fails is settled all the same, and holds the next one up no longer', async () => {
    const told = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    mockMedia.makeExport.mockRejectedValueOnce(new Error('odd'));
    mockMedia.refuses = true;
    begin();
    begin();
    await waitForTasks();
    mockMedia.refuses = false;
    expect(
      readStored()
        .exports.map((record) => record.state)
        .sort(),
    ).toEqual(['done', 'failed']);
    expect(isExporting(useExportQueue.getState())).toBe(false);
    told.mockRestore();
  });

  it('is deleted with its bytes', async () => {
    begin();
    await waitForTasks();
    const { id } = readStored().exports[0]!;
    await deleteExport('job-1', id);
    expect(readStored().exports).toEqual([]);
    expect(mockMedia.deleted).toContain(`${id}.mp4`);
  });
});
