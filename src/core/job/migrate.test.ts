import { activeCanvas } from './clip';
import { activeClip, mainMaster } from './job';
import { readOldJob } from './stored-job';
import { testJob, TEST_MASTER, testShot } from './test-job';

const job = testJob();
const oldFraming = (shot: string) => ({
  shot,
  track: 'main',
  keyframes: [{ frame: 0, focus: { x: 0.2, y: 0.5 }, seat: { x: 0.5, y: 0.5 }, zoom: 1 }],
});
const oldCanvas = (mode: 'fill' | 'fit') => {
  const { layout: _layout, dye: _dye, detached: _detached, ...rest } = activeCanvas(activeClip(job.edit));
  const rect = { x: 0, y: 0, width: 1, height: 1 };
  return { ...rest, layout: { kind: 'single', panes: [{ rect, track: 'main', mode }] } };
};

describe('a job of the second version', () => {
  it('opens with its framings, and what was fitted stays fitted on that canvas alone', () => {
    const { canvas: _canvas, ...clip } = activeClip(job.edit);
    const { ticks: _ticks, gone: _gone, ...edit } = job.edit;
    const shots = [testShot('a', 0, 500), testShot('b', 500, 984)];
    const clips = [{ ...clip, canvases: [oldCanvas('fit')], videoBits: null }];
    const old = { ...job, schemaVersion: 2, edit: { ...edit, shots, framings: [oldFraming('a')], clips } };
    const read = readOldJob(JSON.stringify({ job: old, history: {} }));
    if (!read.ok) throw new Error(read.detail);
    const { framings, clips: now } = read.file.job.edit;
    expect(framings).toMatchObject([
      { shot: 'a', turn: 0, fit: false, keyframes: [{ tilt: 0, ease: null }] },
    ]);
    expect(now[0]).toMatchObject({ canvas: 'canvas-1', canvases: [{ dye: 0, layout: { kind: 'single' } }] });
    expect(now[0]?.canvases[0]?.detached).toMatchObject([
      { shot: 'a', fit: true, keyframes: [{ focus: { x: 0.2, y: 0.5 } }] },
      { shot: 'b', fit: true, keyframes: [{ frame: 500, focus: { x: 0.5, y: 0.5 } }] },
    ]);
  });
});

describe('a job of the first version', () => {
  const {
    id: _id,
    pixelAspect: _a,
    flip: _f,
    frameTimes: _t,
    repeated: _r,
    dropped: _d,
    ...master
  } = mainMaster(job);
  const { audioTracks: _tracks, ...bare } = master;
  const { clips: _clips, repairs: _repairs, ticks: _ticks, clip: _clip, gone: _gone, ...edit } = job.edit;
  const { masters: _masters, ...rest } = job;
  const clip = activeClip(job.edit);
  const old = {
    job: {
      ...rest,
      schemaVersion: 1,
      title: 'An old one',
      master: { ...bare, video: { codec: 'avc', codecString: 'avc1.640028', bits: 1 } },
      edit: {
        ...edit,
        shots: [{ id: 'shot-1', in: 0, out: 984 }],
        cut: [{ in: 5, out: 50 }],
        framings: [oldFraming('shot-1')],
        canvases: [oldCanvas('fill')],
        words: clip.words,
        audience: 'private',
        overrides: ['tag'],
        videoBits: null,
      },
      exports: [],
      posts: [],
    },
    history: { past: [], future: [] },
  };

  it('opens with everything that was made', () => {
    const read = readOldJob(JSON.stringify(old));
    if (!read.ok) throw new Error(read.detail);
    const { job: now } = read.file;
    expect(activeClip(now.edit)).toMatchObject({
      name: 'An old one',
      cut: [{ master: TEST_MASTER, in: 5, out: 50 }],
      overrides: [{ rule: 'tag', canvas: 'canvas-1', reason: expect.any(String) }],
    });
    expect(now.edit.framings[0]?.shot).toBe(now.edit.shots[0]?.id);
    expect(mainMaster(now)).toMatchObject({ id: TEST_MASTER, pixelAspect: { num: 1, den: 1 }, flip: false });
  });
});
