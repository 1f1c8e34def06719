import legacy from '@react-native-async-storage/async-storage';
import type { JobFile } from '@core/job/document';
import { EMPTY_HISTORY } from '@core/job/history';
import { activeClip } from '@core/job/job';
import type { ExportRecord } from '@core/job/records';
import { createFramingCommand, keep, TEST_MASTER, testJob } from '@core/job/test-job';
import {
  addCopy,
  addJob,
  dispatch,
  NO_JOBS,
  openJob,
  openJobs,
  redo,
  removeJob,
  renameJob,
  setClip,
  undo,
  useJobs,
} from './jobs';
import { addClip } from '../cut';
import { findOpenExports, holdExports, putExport } from './records';
import { appendEntry, createJob, compactJob, loadJob, StaleWrite, storage } from '../store';

jest.mock('@media/worker/tasks', () => ({}));
jest.mock('@media/store/storage', () => ({}));
jest.mock('../player', () => ({ player: { showFrame: jest.fn(), findProxy: jest.fn() } }));

const record: ExportRecord = {
  id: 'export-1',
  clip: 'clip-1',
  canvas: 'canvas-1',
  dye: 0,
  placement: 'verrow/short',
  width: 1080,
  height: 1920,
  fileName: 'x.mp4',
  format: 'mp4-avc',
  startedAt: '2026-11-01T10:00:00.000Z',
  state: 'running',
  signature: '',
  videoBits: 1,
  error: null,
  bytes: null,
  tookSeconds: null,
  proof: null,
};
const file = (): JobFile => useJobs.getState().files['job-1']!;
const cut = () => activeClip(file().job.edit).cut;
const settled = () => new Promise((resolve) => setTimeout(resolve, 5));
/** Opens the stored jobs as a new page would. */
async function reopened(): Promise<void> {
  await settled();
  useJobs.setState(NO_JOBS);
  await openJobs();
  await openJob('job-1');
}

beforeEach(async () => {
  await storage.clear();
  await legacy.clear();
  useJobs.setState({ ...NO_JOBS, loaded: true });
  addJob(testJob());
  await settled();
});
afterEach(() => jest.restoreAllMocks());

describe('the job store', () => {
  it('stores every change at once, with its undo', async () => {
    dispatch('job-1', keep(40, 984));
    dispatch('job-1', createFramingCommand({ zoom: 2 }));
    undo('job-1');
    const before = file();
    await reopened();
    expect(file()).toEqual(before);
    expect(file().history.past.map((step) => step.command)).toEqual(['set-cut/trim']);
    redo('job-1');
    expect(file().job.edit.framings).toHaveLength(1);
    undo('job-1');
    undo('job-1');
    expect(cut()[0]?.in).toBe(0);
  });

  it('joins quick steps of one kind, and none that came later or in between', async () => {
    const time = jest.spyOn(Date, 'now');
    const trimAt = (ms: number, frame: number, joins?: string) => {
      time.mockReturnValue(ms);
      dispatch('job-1', keep(frame, 984), joins);
    };
    trimAt(0, 1, 'in');
    trimAt(500, 2, 'in');
    trimAt(1000, 3, 'in');
    trimAt(9000, 4, 'in');
    trimAt(9100, 5);
    trimAt(9200, 6, 'in');
    time.mockRestore();
    await reopened();
    const ins: number[] = [];
    for (let i = 0; i < 5; i++) {
      ins.push(cut()[0]!.in);
      undo('job-1');
    }
    expect(ins).toEqual([6, 5, 4, 3, 0]);
  });

  it('keeps what is worked on, and its name, without a step', async () => {
    addClip(file().job);
    setClip('job-1', 'clip-1');
    renameJob('job-1', 'Another name');
    const steps = file().history.past.length;
    await reopened();
    expect(file().job.edit.clip).toBe('clip-1');
    expect(file().job.title).toBe('Another name');
    expect(useJobs.getState().listed['job-1']?.head).toMatchObject({ title: 'Another name', clips: 2 });
    expect(file().history.past).toHaveLength(steps);
  });

  it.each([0, 1, 2, 3, 5, 8, 13])(
    'keeps what is changed while the job is read, %i turns of the storage into it',
    async (turns) => {
      renameJob('job-1', 'Before');
      const opening = openJob('job-1');
      for (let n = 0; n < turns; n++) await storage.getItem('anything');
      renameJob('job-1', 'Meanwhile');
      await opening;
      expect(file().job.title).toBe('Meanwhile');
      expect(useJobs.getState().listed['job-1']?.head.title).toBe('Meanwhile');
      await reopened();
      expect(file().job.title).toBe('Meanwhile');
      expect(Object.keys(useJobs.getState().listed)).toHaveLength(1);
    },
  );

  it('opens as it is here where it could not be stored', async () => {
    const write = jest.spyOn(storage, 'setMany').mockRejectedValue(new Error('full'));
    renameJob('job-1', 'Unsaved');
    await settled();
    expect(await openJob('job-1')).toBe(true);
    expect(file().job.title).toBe('Unsaved');
    write.mockRestore();
    dispatch('job-1', keep(1, 984));
    await reopened();
    expect(file().job.title).toBe('Unsaved');
  });

  it('writes of a change what it changed, and of many a fold, which reads the same', async () => {
    const written = jest.spyOn(storage, 'setMany');
    dispatch('job-1', keep(1, 984));
    await settled();
    const sizes = written.mock.calls.map(([entries]) => Object.values(entries).join('').length);
    expect(Math.max(...sizes)).toBeLessThan(4000);
    for (let n = 2; n < 200; n++) dispatch('job-1', keep(n, 984));
    await settled();
    await settled();
    const keys = await storage.getAllKeys();
    expect(keys.filter((key) => key.includes('/entry/')).length).toBeLessThan(60);
    const before = file();
    await reopened();
    expect(file()).toEqual(before);
  });

  it('finds an export that was not ended and that no tab makes any more, and only then', async () => {
    const letGo = holdExports([record.id]);
    await putExport('job-1', record);
    await reopened();
    expect(await findOpenExports()).toEqual([]);
    letGo();
    await settled();
    const [found, ...more] = await findOpenExports();
    expect([found?.jobId, found?.record, more]).toEqual(['job-1', file().job.exports[0], []]);
    // It is held from then on: another tab does not find it.
    expect(await findOpenExports()).toEqual([]);
    found?.letGo();
    const again = await findOpenExports();
    expect(again).toHaveLength(1);
    again.forEach(({ letGo }) => letGo());
  });

  it('does not take an export for one to take up that ended while it was looked at', async () => {
    await putExport('job-1', record);
    // Another tab finished it after this one had read it.
    const done = JSON.stringify({ ...record, state: 'done' });
    await storage.setItem('job/job-1/export/export-1', done);
    expect(await findOpenExports()).toEqual([]);
    expect(file().job.exports[0]?.state).toBe('done');
    expect(await storage.getItem('job/job-1/export/export-1')).toBe(done);
  });

  it('keeps a change of the job and a record of its export apart', async () => {
    await putExport('job-1', record);
    dispatch('job-1', keep(7, 984));
    await putExport('job-1', { ...record, state: 'done' });
    await reopened();
    expect(file().job.exports[0]?.state).toBe('done');
    expect(cut()[0]?.in).toBe(7);
  });

  it('copies a job without its exports, under an id of its own', async () => {
    await putExport('job-1', record);
    const id = await addCopy(file().job, 'A copy');
    expect(useJobs.getState().listed[id]?.head.title).toBe('A copy');
    expect((await loadJob(id))?.ok).toBe(true);
    expect(useJobs.getState().files[id]?.job.exports).toEqual([]);
  });

  it('keeps what does not open aside and untouched', async () => {
    const key = 'job/bad/document';
    await storage.setItem(key, '{"revision":0,"job":');
    await reopened();
    expect(Object.keys(useJobs.getState().listed)).toEqual(['job-1']);
    expect(useJobs.getState().aside).toMatchObject([{ id: 'bad', problem: 'damaged' }]);
    expect(await storage.getItem(key)).toBe('{"revision":0,"job":');
  });

  it('keeps every change of a new job whose first write failed, and is not told saved by another’s success', async () => {
    jest.spyOn(storage, 'setMany').mockRejectedValueOnce(new Error('quota'));
    addJob({ ...testJob(), id: 'fresh', title: 'Fresh' });
    await settled();
    dispatch('job-1', keep(2, 984));
    await settled();
    expect(Object.keys(useJobs.getState().saveTroubles)).toEqual(['fresh']);
    for (const first of [1, 2]) dispatch('fresh', keep(first, 900));
    await settled();
    expect(useJobs.getState().saveTroubles).toEqual({});
    const before = useJobs.getState().files.fresh;
    await reopened();
    expect((await loadJob('fresh'))?.ok).toBe(true);
    await openJob('fresh');
    expect(useJobs.getState().files.fresh?.job.edit).toEqual(before?.job.edit);
  });

  it('refuses a change that it could not be opened with, says so, and takes the next', async () => {
    const { edit } = file().job;
    const long = { id: 'cue-1', text: 'x'.repeat(5000), spans: [{ master: TEST_MASTER, in: 0, out: 1 }] };
    dispatch('job-1', { type: 'set-cues', act: 'write', cues: [long] });
    dispatch('job-1', { type: 'tick-shot', shot: 'gone-1', signature: 'played' });
    expect(file().job.edit).toBe(edit);
    expect(useJobs.getState().refusals['job-1']?.code).toBe('change-refused');
    dispatch('job-1', keep(1, 984));
    expect(useJobs.getState().refusals).toEqual({});
    await settled();
    await reopened();
    expect((await loadJob('job-1'))?.ok).toBe(true);
  });

  it('says why a change is not stored, until it is: then nothing of it is missing', async () => {
    jest.spyOn(storage, 'setMany').mockRejectedValueOnce(new Error('quota'));
    dispatch('job-1', keep(1, 984));
    await settled();
    expect(useJobs.getState().saveTroubles).toEqual({
      'job-1': { code: 'save-failed', values: { detail: 'quota' } },
    });
    dispatch('job-1', createFramingCommand({ zoom: 2 }));
    await settled();
    expect(useJobs.getState().saveTroubles).toEqual({});
    const before = file();
    await reopened();
    expect(file()).toEqual(before);
  });

  it('forgets a deleted job, and what ran for it', async () => {
    await removeJob('job-1');
    await putExport('job-1', record);
    expect(useJobs.getState()).toMatchObject({ files: {}, listed: {} });
    expect(await storage.getAllKeys()).toEqual([]);
  });
});

describe('a write', () => {
  const at = '2026-11-26T10:00:00.000Z';

  it('that does not rest on the stored revision is never made', async () => {
    const mine = file();
    dispatch('job-1', keep(40, 984));
    await settled();
    const stale = { revision: 1, at, done: { op: 'undo' as const } };
    const before = await storage.getMany(await storage.getAllKeys());
    await expect(appendEntry({ ...mine, revision: 1 }, stale)).rejects.toThrow(StaleWrite);
    await expect(compactJob(mine, 0)).rejects.toThrow(StaleWrite);
    expect(await storage.getMany(await storage.getAllKeys())).toEqual(before);
  });

  it('of a job that was changed elsewhere keeps both: the stored one, and this one as a copy', async () => {
    const elsewhere = { ...file(), revision: 1, job: { ...file().job, title: 'Changed elsewhere' } };
    await compactJob(elsewhere, 0);
    dispatch('job-1', keep(40, 984));
    await settled();
    await settled();
    expect(file().job.title).toBe('Changed elsewhere');
    const copy = Object.values(useJobs.getState().listed).find(({ head }) => head.id !== 'job-1')!.head;
    expect(copy.title).toBe('Edit (from another tab)');
    const read = await loadJob(copy.id);
    expect(read?.ok && activeClip(read.file.job.edit).cut[0]?.in).toBe(40);
  });
});

describe('what the storage of before holds', () => {
  const job = testJob();
  const { soundTrack: _track, ...master } = job.masters[0]!;
  const { gone: _gone, ...now } = job.edit;
  const edit = { ...now, clips: now.clips.map((clip) => ({ ...clip, videoBits: null })) };
  const { offered: _offered, ...rest } = job;
  const old = { ...rest, id: 'old', title: 'An old one', schemaVersion: 3, masters: [master], edit };
  const text = JSON.stringify({ job: old, history: {} });

  it('is taken over once: read, written, read back, and only then removed', async () => {
    await legacy.setItem('gusset/job/old', text);
    await legacy.setItem('gusset/setting/presets', '[]');
    await legacy.setItem('another program', 'stays');
    await reopened();
    expect(useJobs.getState().listed.old?.head.title).toBe('An old one');
    expect(await legacy.getAllKeys()).toEqual(['another program']);
    expect(await storage.getItem('setting/presets')).toBe('[]');
  });

  it('stays where it was when it was not written', async () => {
    await legacy.setItem('gusset/job/old', text);
    jest.spyOn(storage, 'setMany').mockRejectedValueOnce(new Error('quota'));
    useJobs.setState(NO_JOBS);
    await openJobs();
    expect(await legacy.getItem('gusset/job/old')).toBe(text);
    expect(useJobs.getState().aside).toMatchObject([{ id: 'old', detail: expect.stringContaining('quota') }]);
    expect(useJobs.getState().listed['job-1']).toBeDefined();
  });

  it('that is damaged or newer stays, and is told', async () => {
    await legacy.setItem('gusset/job/bad', text.slice(0, 300));
    await legacy.setItem('gusset/job/later', text.replace('"schemaVersion":3', '"schemaVersion":99'));
    await reopened();
    expect(useJobs.getState().aside.map((job) => [job.id, job.problem])).toEqual([
      ['bad', 'damaged'],
      ['later', 'newer'],
    ]);
    expect((await legacy.getAllKeys()).sort()).toEqual(['gusset/job/bad', 'gusset/job/later']);
  });

  it('does not overwrite what was taken over before and worked on since', async () => {
    await createJob({
      job: { ...testJob(), id: 'old', title: 'Worked on' },
      history: EMPTY_HISTORY,
      revision: 3,
    });
    await legacy.setItem('gusset/job/old', text);
    await reopened();
    expect(useJobs.getState().listed.old?.head.title).toBe('Worked on');
    expect(await legacy.getAllKeys()).toEqual([]);
  });
});
