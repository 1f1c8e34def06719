import type { TaskCallbacks } from '@media/worker/run-task';
import { createEvidence, type Track } from '@core/follow/evidence';
import type { FollowResult, FollowTask } from '@core/follow/solve';
import { DEFAULT_FOLLOW_OPTIONS } from '@core/framing/following';
import { listShots } from '@core/cut/master-shots';
import { findSource } from '@core/job/job';
import { testJob, TEST_MASTER } from '@core/job/test-job';
import { TroubleError } from '@core/trouble/trouble';
import { gatherShotEvidence, useEvidence } from './evidence';
import { followDrawn, followFramings, noteKey, stopFollowing, useFollow } from './follow';
import { addJob, dispatch, NO_JOBS, undo, useJobs } from '../job';

type Range = { in: number; out: number };
interface Looked {
  ranges: Range[];
  tell: (progress: { done: number; span: object | null }) => void;
}
const mockLooks: Looked[] = [];
let mockTracks: Track[] = [];
let mockPaths: (shots: FollowTask[]) => Promise<(FollowResult | null)[]>;
let mockFull = false;
const mockFiles = new Map<string, string>();
const mockFullError = () => new TroubleError('storage-full', { need: 1, free: 0 });
const mockTextOf = (blob: Blob) =>
  new Promise<string>((resolve) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.readAsText(blob);
  });
jest.mock('@media/worker/tasks', () => ({
  gatherEvidence: jest.fn(({ ranges }: { ranges: Range[] }, following: Required<TaskCallbacks<never>>) => {
    const { onProgress, signal } = following;
    const tell = onProgress as Looked['tell'];
    mockLooks.push({ ranges, tell });
    if (signal.aborted) return Promise.reject(new Error('stopped'));
    for (const range of ranges)
      tell({ done: range.out - range.in, span: { ...range, tracks: mockTracks, busy: null } });
    return Promise.resolve(1);
  }),
  findPaths: jest.fn(({ shots }: { shots: FollowTask[] }) => mockPaths(shots)),
  followDrawnBox: jest.fn(() => Promise.resolve({ ...mockTracks[0], kind: 'drawn' })),
}));
jest.mock('@media/store/storage', () => ({
  storedFile: (_folder: string, name: string) => {
    const text = mockFiles.get(name);
    return Promise.resolve(text === undefined ? null : { text: () => Promise.resolve(text) });
  },
  writeSmall: async (_folder: string, name: string, blob: Blob) => {
    if (mockFull) throw mockFullError();
    mockFiles.set(name, await mockTextOf(blob));
  },
}));

const job = testJob();
const [master] = job.masters;
const [shot] = listShots(job.edit.shots, findSource(job, TEST_MASTER));
const to = { shot: shot!, track: 'main', owner: 'shared' as const };
const track: Track = {
  kind: 'person',
  look: null,
  points: Array.from({ length: 100 }, (_, i) => ({
    frame: i * 5,
    confidence: 0.6,
    box: { x: 0.3, y: 0.3, width: 0.1, height: 0.4 },
  })),
};
const path = ({ in: frame }: FollowTask): FollowResult => ({
  keyframes: [
    { frame, focus: { x: 0.3, y: 0.5 }, seat: { x: 0.5, y: 0.5 }, zoom: 1, tilt: 0, ease: null, found: true },
  ],
  ...{ doubts: [], unserved: [], places: [] },
});
const framings = () => useJobs.getState().files[job.id]?.job.edit.framings ?? [];
const NOTHING = () => undefined;

beforeEach(() => {
  mockLooks.length = 0;
  mockFiles.clear();
  mockFull = false;
  mockTracks = [track];
  mockPaths = (shots) => Promise.resolve(shots.map(path));
  useEvidence.setState({}, true);
  useFollow.setState({ runs: {}, troubles: {}, notes: {} });
  useJobs.setState({ ...NO_JOBS, loaded: true });
  addJob(job);
});

describe('evidence', () => {
  const ranges = [
    { in: 0, out: 100 },
    { in: 100, out: 150 },
    { in: 150, out: 260 },
  ];

  it('is looked for by two workers that share the ranges, and is kept', async () => {
    const told: number[] = [];
    const { spans } = await gatherShotEvidence(
      master!,
      ranges,
      (done) => told.push(done),
      new AbortController().signal,
    );
    expect(mockLooks.map(({ ranges }) => ranges)).toEqual([[ranges[2]], [ranges[0], ranges[1]]]);
    expect(spans.map((span) => span.in)).toEqual([0, 100, 150]);
    expect(Math.max(...told)).toBeGreaterThan(0);
    // A second asking looks at nothing; another visit reads what was stored.
    mockLooks.length = 0;
    await gatherShotEvidence(master!, ranges, NOTHING, new AbortController().signal);
    useEvidence.setState({}, true);
    await gatherShotEvidence(master!, ranges, NOTHING, new AbortController().signal);
    expect(mockLooks).toEqual([]);
  });

  it('that cannot be read is looked for again', async () => {
    await gatherShotEvidence(master!, ranges, NOTHING, new AbortController().signal);
    for (const name of mockFiles.keys()) mockFiles.set(name, '{"broken":');
    useEvidence.setState({}, true);
    mockLooks.length = 0;
    const { spans } = await gatherShotEvidence(master!, ranges, NOTHING, new AbortController().signal);
    expect(spans).toHaveLength(3);
  });
});

describe('following', () => {
  it('finds whom a shot is about, and is one step for undo', async () => {
    await followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    expect(framings()).toMatchObject([{ shot: shot!.id, following: { subjects: [{ y: 0.5 }] } }]);
    expect(useFollow.getState().runs).toEqual({});
    undo(job.id);
    expect(framings()).toEqual([]);
  });

  it('says where there is nothing to follow, and changes nothing', async () => {
    mockTracks = [];
    await followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    expect(framings()).toEqual([]);
    expect(useFollow.getState().notes[noteKey(job.id, shot!)]).toBe('nothing');
    // Another job of the same master has shots of the same names.
    expect(useFollow.getState().notes[noteKey('another', shot!)]).toBeUndefined();
  });

  it('leaves alone what a person changed while the path was sought', async () => {
    let found: () => void = NOTHING;
    mockPaths = (shots) => new Promise((resolve) => (found = () => resolve(shots.map(path))));
    const following = followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    while (found === NOTHING) await new Promise((resolve) => setTimeout(resolve, 1));
    const own = { ...path({ in: 7 } as FollowTask).keyframes[0]!, frame: 7 };
    const framing = { shot: shot!.id, track: 'main', turn: 0 as const, fit: false, keyframes: [own] };
    dispatch(job.id, { type: 'set-framings', act: 'move', owner: 'shared', framings: [framing] });
    found();
    await following;
    expect(framings()).toEqual([framing]);
  });

  it('tells what failed, and can be stopped', async () => {
    mockPaths = () => Promise.reject(new TroubleError('worker-ended', { detail: 'gone' }));
    await followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    expect(useFollow.getState().troubles[job.id]).toMatchObject({ code: 'worker-ended' });
    let reject: (error: unknown) => void = NOTHING;
    mockPaths = () => new Promise((_, no) => (reject = no));
    const following = followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    while (reject === NOTHING) await new Promise((resolve) => setTimeout(resolve, 1));
    stopFollowing(job.id);
    reject(new TroubleError('cancelled'));
    await following;
    expect(useFollow.getState()).toMatchObject({ runs: {}, troubles: {} });
    expect(framings()).toEqual([]);
  });

  it('says which shot has no path, and follows the others', async () => {
    mockPaths = (shots) => Promise.resolve(shots.map(() => null));
    await followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    expect(useFollow.getState().notes[noteKey(job.id, shot!)]).toBe('no-path');
    expect(framings()).toEqual([]);
  });

  it('is not broken off by another tap while it goes on', async () => {
    let found: () => void = NOTHING;
    mockPaths = (shots) => new Promise((resolve) => (found = () => resolve(shots.map(path))));
    const following = followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    while (found === NOTHING) await new Promise((resolve) => setTimeout(resolve, 1));
    await followFramings(job.id, [to], { ...DEFAULT_FOLLOW_OPTIONS, still: 'close' });
    found();
    await following;
    expect(framings()).toMatchObject([{ following: { wishes: { still: 'calm' } } }]);
  });

  it('of a master that another tab has looked at meanwhile looks at nothing twice', async () => {
    await gatherShotEvidence(master!, [{ in: 0, out: 100 }], NOTHING, new AbortController().signal);
    // What this tab knew before.
    useEvidence.setState({ [master!.fingerprint]: createEvidence(master!.fingerprint) });
    mockLooks.length = 0;
    const { spans } = await gatherShotEvidence(
      master!,
      [{ in: 0, out: 100 }],
      NOTHING,
      new AbortController().signal,
    );
    expect(mockLooks).toEqual([]);
    expect(spans).toHaveLength(1);
  });

  it('that finds no room for what was found says so', async () => {
    mockFull = true;
    await followFramings(job.id, [to], DEFAULT_FOLLOW_OPTIONS);
    expect(useFollow.getState().troubles[job.id]).toMatchObject({ code: 'storage-full' });
    expect(useFollow.getState().runs).toEqual({});
  });

  it('follows a drawn box, and keeps its track with the master', async () => {
    const box = { x: 0.3, y: 0.3, width: 0.1, height: 0.4 };
    await followDrawn(job.id, to, { frame: 40, box }, DEFAULT_FOLLOW_OPTIONS);
    expect(useEvidence.getState()[master!.fingerprint]?.drawn).toHaveLength(1);
    expect(framings()).toHaveLength(1);
  });
});
