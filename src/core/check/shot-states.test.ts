import { testRateChange, testJob, TEST_MASTER, testRange, testShot } from '../job/test-job';
import { LOOKED } from '../job/test-pass';
import { listKeptShots, lookThrough } from '../cut/look-through';
import { plainFraming, PLAIN_VALUES } from '../framing/framing';
import { addCanvas, changeCanvas } from '../job/canvases';
import { applyCommand, type Command } from '../job/commands/commands';
import { activeClip, type Job } from '../job/job';
import { PLAIN_LAYOUT } from '../layout/layout';
import { NO_REPAIRS, type Repairs } from '../master/repairs';
import { checkJob } from './check';
import { lookSignature, shotStates } from './shot-states';
import { findingWords } from './finding';
import { findTarget } from '../outlets/outlets';

const start = testJob();
const shots = [testShot('a', 0, 200), testShot('b', 200, 500), testShot('c', 500, 984)];
const job: Job = { ...start, edit: { ...start.edit, shots } };
const change = (from: Job, ...commands: Command[]): Job => ({
  ...from,
  edit: commands.reduce(applyCommand, from.edit),
});
const put = (framing: ReturnType<typeof plainFraming>): Command => ({
  type: 'set-framings',
  act: 'move',
  owner: 'shared',
  framings: [framing],
});
const key = (frame: number, x: number, zoom = 1) => ({
  ...PLAIN_VALUES,
  frame,
  focus: { x, y: 0.5 },
  zoom,
  ease: null,
});
const stateOf = (work: Job, id: string) => shotStates(work).find((shotState) => shotState.shot.id === id);

describe('where a shot stands', () => {
  it('goes from untouched over framed to keyframed and by itself', () => {
    expect(stateOf(job, 'a')).toMatchObject({ framed: false, keyframed: false, detached: [], look: [] });
    const framed = change(job, put(plainFraming('a', 'main', 0)));
    expect(stateOf(framed, 'a')).toMatchObject({ framed: true, keyframed: false });
    const moving = { ...plainFraming('b', 'main', 200), keyframes: [key(200, 0.3), key(300, 0.7)] };
    const alone = change(framed, put(moving), {
      type: 'detach',
      canvas: 'canvas-1',
      shot: { id: 'c', in: 500 },
    });
    expect(stateOf(alone, 'b')).toMatchObject({ keyframed: true });
    expect(stateOf(alone, 'c')).toMatchObject({ framed: true, detached: ['canvas-1'] });
  });

  it('leaves out what the clip does not keep', () => {
    const cut = change(job, { type: 'set-cut', act: 'trim', cut: [testRange(210, 300)] });
    expect(shotStates(cut).map((shotState) => shotState.shot.id)).toEqual(['b']);
  });

  it('asks for a look at bars, softness, and what changed since it was ticked', () => {
    const fit = change(job, put({ ...plainFraming('a', 'main', 0), fit: true }));
    expect(stateOf(fit, 'a')?.look).toEqual(['bare']);
    const soft = change(job, put({ ...plainFraming('b', 'main', 200), keyframes: [key(200, 0.5, 2)] }));
    expect(stateOf(soft, 'b')?.look).toEqual(['soft']);
    const signature = lookSignature(job, shots[0]!);
    const ticked = change(job, { type: 'tick-shot', shot: 'a', signature });
    expect(stateOf(ticked, 'a')).toMatchObject({ ticked: true, look: [] });
    const later = change(ticked, put({ ...plainFraming('a', 'main', 0), keyframes: [key(0, 0.2)] }));
    expect(stateOf(later, 'a')).toMatchObject({ ticked: false, look: ['changed'] });
    const square = addCanvas(activeClip(ticked.edit), { width: 1080, height: 1080 }, null);
    const more = change(ticked, { type: 'set-canvases', act: 'add', ...square });
    expect(stateOf(more, 'a')?.ticked).toBe(false);
  });

  it('takes a tick for what was seen: not after a repair, other bounds, or for a new shot of an old name', () => {
    const ticked = change(job, { type: 'tick-shot', shot: 'b', signature: lookSignature(job, shots[1]!) });
    const rates = testRateChange(job.masters[0]!.rate, job.masters[0]!.rate);
    const repair = (live: object | null): Command => ({
      type: 'set-repairs',
      master: TEST_MASTER,
      repairs: { ...NO_REPAIRS, live } as Repairs,
      rates,
    });
    expect(stateOf(change(ticked, repair({ x: 0, y: 0.1, width: 1, height: 0.8 })), 'b')?.ticked).toBe(false);
    const reshoot = (from: Job, ...frames: number[]): Job =>
      change(from, {
        type: 'set-shots',
        act: 'move',
        master: TEST_MASTER,
        old: from.edit.shots,
        boundaries: frames.map((frame) => ({ frame, start: null })),
        frames: 984,
      });
    expect(stateOf(reshoot(ticked, 200, 480), 'b')?.ticked).toBe(false);
    // Merged away: the tick goes with the shot, and no later shot gets it.
    const merged = reshoot(ticked, 500);
    expect(merged.edit.ticks).toEqual({});
    expect(shotStates(reshoot(merged, 200, 500)).some((shotState) => shotState.ticked)).toBe(false);
  });
});

describe('panes that show the same', () => {
  const layout = { ...PLAIN_LAYOUT, kind: 'stacked' as const };
  const stacked = change(job, {
    type: 'set-canvases',
    act: 'layout',
    ...changeCanvas(activeClip(job.edit), 'canvas-1', { layout }),
  });
  const finding = (work: Job) => checkJob(work, LOOKED).find((finding) => finding.rule === 'panes');

  it('are found, with the worst frame, and gone once their windows are apart', () => {
    expect(finding(stacked)).toMatchObject({
      code: 'subject',
      severity: 'warn',
      values: { shots: 3, percent: 100 },
    });
    expect(stateOf(stacked, 'a')?.look).toContain('twice');
    const apart = change(
      stacked,
      ...shots.flatMap(({ id, in: first }) => [
        put({ ...plainFraming(id, 'main', first), keyframes: [key(first, 0.1, 2)] }),
        put({ ...plainFraming(id, 'second', first), keyframes: [key(first, 0.9, 2)] }),
      ]),
    );
    expect(finding(apart)).toMatchObject({ code: 'apart', severity: 'pass' });
    const target = findTarget(LOOKED.sheets, activeClip(apart.edit).canvases[0]!);
    expect(findingWords(finding(stacked)!, target)).toMatch(/seen twice: 3 shots, at worst 100 % of pane/);
  });

  it('only share a piece where neither subject lies in it', () => {
    const near = change(
      stacked,
      ...shots.flatMap(({ id, in: first }) => [
        put({ ...plainFraming(id, 'main', first), keyframes: [key(first, 0.25, 1.5)] }),
        put({ ...plainFraming(id, 'second', first), keyframes: [key(first, 0.6, 1.5)] }),
      ]),
    );
    expect(finding(near)).toMatchObject({ code: 'overlap', severity: 'note' });
  });
});

describe('a look through the shots', () => {
  it('plays start, middle and end of each, and all of a short one', () => {
    const kept = listKeptShots([testRange(100, 260)], shots);
    expect(kept).toEqual([
      { id: 'a', master: TEST_MASTER, in: 100, out: 200 },
      { id: 'b', master: TEST_MASTER, in: 200, out: 260 },
    ]);
    expect(lookThrough(kept, () => 24).map(({ in: first, out, shot }) => [shot, first, out])).toEqual([
      ['a', 100, 124],
      ['a', 138, 162],
      ['a', 176, 200],
      ['b', 200, 260],
    ]);
  });
});
