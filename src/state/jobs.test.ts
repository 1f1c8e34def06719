import AsyncStorage from '@react-native-async-storage/async-storage';
import { activeClip } from '@core/job/job';
import { keep, testJob } from '@core/job/test-job';
import { addJob, dispatch, openJobs, putExport, redo, removeJob, undo, useJobs } from './jobs';
import { loadJobs } from './persistence';

const record = {
  id: 'export-1',
  clip: 'clip-1',
  canvas: 'canvas-1',
  dye: 0,
  placement: 'verrow/short',
  width: 1080,
  height: 1920,
  fileName: 'x.mp4',
  startedAt: '2026-11-01T10:00:00.000Z',
  state: 'running' as const,
  signature: '',
  videoBits: 1,
  error: null,
  bytes: null,
  tookSeconds: null,
  proof: null,
};
const cut = () => activeClip(useJobs.getState().files['job-1']!.job.edit).cut;

beforeEach(async () => {
  await AsyncStorage.clear();
  useJobs.setState({ loaded: false, files: {}, aside: [], saveTrouble: null });
  addJob(testJob());
});
afterEach(() => jest.restoreAllMocks());

describe('the job store', () => {
  it('stores every change at once, with its undo', async () => {
    dispatch('job-1', keep(40, 984));
    const { files } = await loadJobs();
    expect(activeClip(files[0]!.job.edit).cut[0]?.in).toBe(40);
    expect(files[0]?.history.past.map((step) => step.name)).toEqual(['trim the cut']);
    undo('job-1');
    expect(cut()[0]?.in).toBe(0);
    redo('job-1');
    expect(cut()[0]?.in).toBe(40);
  });

  it('joins quick steps of one kind, and none that came later or in between', () => {
    const time = jest.spyOn(Date, 'now');
    const at = (ms: number, frame: number, joins?: string) => {
      time.mockReturnValue(ms);
      dispatch('job-1', keep(frame, 984), joins);
    };
    at(0, 1, 'in');
    at(500, 2, 'in');
    at(1000, 3, 'in');
    at(9000, 4, 'in');
    at(9100, 5);
    at(9200, 6, 'in');
    const ins: number[] = [];
    for (let i = 0; i < 5; i++) {
      ins.push(cut()[0]!.in);
      undo('job-1');
    }
    expect(ins).toEqual([6, 5, 4, 3, 0]);
  });

  it('finds an export that was running when the page closed interrupted', async () => {
    putExport('job-1', record);
    await Promise.resolve();
    useJobs.setState({ loaded: false, files: {} });
    await openJobs();
    expect(useJobs.getState().files['job-1']?.job.exports[0]?.state).toBe('interrupted');
  });

  it('keeps what does not open aside and untouched', async () => {
    await AsyncStorage.setItem('gusset/job/bad', '{"job":');
    useJobs.setState({ loaded: false, files: {} });
    await openJobs();
    expect(Object.keys(useJobs.getState().files)).toEqual(['job-1']);
    expect(useJobs.getState().aside).toMatchObject([{ key: 'gusset/job/bad', problem: 'damaged' }]);
    expect(await AsyncStorage.getItem('gusset/job/bad')).toBe('{"job":');
  });

  it('says why a change is not stored, until one is', async () => {
    jest.spyOn(AsyncStorage, 'setItem').mockRejectedValueOnce(new Error('quota'));
    dispatch('job-1', keep(1, 984));
    await new Promise((resolve) => setTimeout(resolve));
    expect(useJobs.getState().saveTrouble).toEqual({ code: 'save-failed', values: { detail: 'quota' } });
    dispatch('job-1', keep(2, 984));
    await new Promise((resolve) => setTimeout(resolve));
    expect(useJobs.getState().saveTrouble).toBeNull();
  });

  it('forgets a deleted job, and what ran for it', async () => {
    await removeJob('job-1');
    putExport('job-1', record);
    expect(useJobs.getState().files).toEqual({});
    expect((await loadJobs()).files).toEqual([]);
  });
});
