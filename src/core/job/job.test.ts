import fc from 'fast-check';
import { framed, keep, testJob, TEST_MASTER, testShot } from './test-job';
import { applyCommand, type Command } from './commands/commands';
import { exportFileName } from './export-name';
import { signatureOf } from './signature';
import { changeBy, continued, EMPTY_HISTORY, recorded, redone, undone, type Versioned } from './history';
import { plainFraming } from '../framing/framing';
import { activeCanvas, type Clip } from './clip';
import { activeClip, type Edit, type Job, mainMaster } from './job';
import { readOldJob, readStoredJob, storedJob } from './stored-job';
import { NO_REPAIRS } from '../master/repairs';

const job = testJob();
/** The job's edit after commands, with its history. */
const after = (commands: readonly Command[]): Versioned =>
  commands.reduce<Versioned>(
    (now, command) => {
      const change = changeBy(now.edit, command);
      return change ? recorded(now, change) : now;
    },
    { edit: job.edit, history: EMPTY_HISTORY },
  );
const framing = (x: number): Command => framed({ focus: { x, y: 0.5 }, zoom: 1.5 });
const command = fc.oneof<fc.Arbitrary<Command>[]>(
  fc
    .constantFrom('verrow/short', 'tesselle/square', 'tesselle/portrait')
    .map((placement) => ({ type: 'choose-placement', placement })),
  fc.tuple(fc.nat(500), fc.integer({ min: 501, max: 984 })).map(([first, out]) => keep(first, out)),
  fc.double({ min: 0, max: 1, noNaN: true }).map(framing),
  fc.boolean().map((fit) => framed({}, { fit })),
  fc.constantFrom<Command>(
    { type: 'fill-canvas' },
    { type: 'detach', canvas: 'canvas-1', shot: { id: `${TEST_MASTER}-1`, in: 0 } },
    { type: 'attach', canvas: 'canvas-1', shot: `${TEST_MASTER}-1` },
    { type: 'tick-shot', shot: `${TEST_MASTER}-1`, signature: 'x' },
  ),
  fc.constantFrom('private', 'public').map((audience) => ({ type: 'set-audience', audience }) as const),
  fc
    .constantFrom('it is meant so', null)
    .map((reason) => ({ type: 'set-override', rule: 'length', canvas: 'canvas-1', reason }) as const),
);

describe('commands', () => {
  it('can all be undone and done again', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 30 }), (commands) => {
        let now = after(commands);
        const end = now.edit;
        const steps = now.history.past.length;
        for (let i = 0; i < steps; i++) now = undone(now);
        expect(now.edit).toEqual(job.edit);
        for (let i = 0; i < steps; i++) now = redone(now);
        expect(now.edit).toEqual(end);
      }),
    );
  });

  it('leave a job that reads back the same, with its history', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 12 }), (commands) => {
        const now = after(commands);
        const file = { job: { ...job, edit: now.edit }, history: now.history, revision: 7 };
        expect(readStoredJob(storedJob(file))).toEqual({ ok: true, file });
      }),
    );
  });

  it('that continue one another are one step', () => {
    const start = { edit: job.edit, history: EMPTY_HISTORY };
    const first = recorded(start, changeBy(job.edit, framing(0.4))!);
    const second = continued(first, changeBy(first.edit, framing(0.3))!);
    expect(second.history.past).toHaveLength(1);
    expect(undone(second).edit).toEqual(job.edit);
    expect(redone(undone(second)).edit).toEqual(second.edit);
  });

  it('change the canvas without losing framing or cut, and end overrides of the old placement', () => {
    const start = [
      framing(0.2),
      keep(50, 984),
      { type: 'set-override', rule: 'tag', canvas: 'canvas-1', reason: 'later' } as const,
    ].reduce<Edit>((edit, command) => applyCommand(edit, command as Command), job.edit);
    const square = applyCommand(start, { type: 'choose-placement', placement: 'tesselle/square' });
    expect(activeCanvas(activeClip(square))).toMatchObject({
      width: 1080,
      height: 1080,
      rate: mainMaster(job).rate,
    });
    expect(activeClip(square).overrides).toEqual([]);
    const back = applyCommand(square, { type: 'choose-placement', placement: 'verrow/short' });
    const { overrides } = activeClip(start);
    expect({ ...activeClip(back), overrides }).toEqual(activeClip(start));
  });

  it('reset a framing to the middle', () => {
    const set = applyCommand(job.edit, framing(0.1));
    const shot = `${TEST_MASTER}-1`;
    const reset = applyCommand(set, { type: 'reset-framing', shot, track: 'main', owner: 'shared' });
    expect(reset.framings).toEqual([]);
  });
});

describe('an export', () => {
  const named = (name: string, part: Clip['part'] = null): Pick<Job, 'edit'> => {
    const clip = { ...activeClip(job.edit), name, part };
    return { edit: { ...job.edit, clips: [clip] } };
  };

  it('is named by clip, part, placement and size', () => {
    expect(exportFileName(named('Kite Day at Windle Bay'))).toBe(
      'kite-day-at-windle-bay_verrow-short_1080x1920.mp4',
    );
    expect(exportFileName(named('Kite Day', { number: 2, of: 4 }))).toBe(
      'kite-day-2-of-4_verrow-short_1080x1920.mp4',
    );
    expect(exportFileName(named('../../..'))).toBe('clip_verrow-short_1080x1920.mp4');
  });

  it('is stale once what it shows changes, and not when only words do', () => {
    const before = signatureOf(job.edit);
    expect(signatureOf(applyCommand(job.edit, framing(0.3)))).not.toBe(before);
    expect(signatureOf(applyCommand(job.edit, keep(5, 50)))).not.toBe(before);
    const elsewhere = { ...framing(0.3), framings: [{ ...plainFraming('another', 'main', 0), fit: true }] };
    expect(signatureOf(applyCommand(job.edit, elsewhere as Command))).toBe(before);
    const words = { title: 'x', description: '', tags: [] };
    expect(signatureOf(applyCommand(job.edit, { type: 'set-words', words }))).toBe(before);
  });
});

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
    const clips = [{ ...clip, canvases: [oldCanvas('fit')] }];
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

describe("a change of a master's rate", () => {
  it('keeps every place at its moment', () => {
    const before = { num: 30, den: 1 };
    const after = { num: 60, den: 1 };
    const start = [testShot('a', 0, 100), testShot('b', 100, 984)];
    const edit = applyCommand({ ...job.edit, shots: start }, keep(50, 150));
    const repairs = { ...NO_REPAIRS, rate: after };
    const now = applyCommand(edit, {
      type: 'set-repairs',
      master: TEST_MASTER,
      repairs,
      rates: { before, after },
    });
    expect(activeClip(now).cut).toEqual([{ master: TEST_MASTER, in: 100, out: 300 }]);
    expect(now.shots.map((shot) => shot.in)).toEqual([0, 200]);
    const back = applyCommand(now, {
      type: 'set-repairs',
      master: TEST_MASTER,
      repairs: NO_REPAIRS,
      rates: { before: after, after: before },
    });
    expect(activeClip(back).cut).toEqual(activeClip(edit).cut);
  });
});
