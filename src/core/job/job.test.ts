import fc from 'fast-check';
import { testJob } from '../test-job';
import { applyCommand, type Command } from './commands';
import { exportFileName, signatureOf } from './export-name';
import { EMPTY_HISTORY, recorded, redone, undone, type Versioned } from './history';
import { activeCanvas, framingOf, shotAt } from './job';
import { readJob, writeJob } from './job-file';

const job = testJob();
const framing = (x: number): Command => ({
  type: 'set-framing',
  framing: {
    shot: 'shot-1',
    track: 'main',
    keyframes: [{ frame: 0, focus: { x, y: 0.5 }, seat: { x: 0.5, y: 0.5 }, zoom: 1.5 }],
  },
});
const command = fc.oneof<fc.Arbitrary<Command>[]>(
  fc
    .constantFrom('verrow/short', 'tesselle/square', 'tesselle/portrait')
    .map((placement) => ({ type: 'choose-placement', placement })),
  fc.nat(983).map((frame) => ({ type: 'set-in', frame })),
  fc.nat(983).map((lastFrame) => ({ type: 'set-out', lastFrame })),
  fc.double({ min: 0, max: 1, noNaN: true }).map(framing),
  fc.constantFrom('fill', 'fit').map((mode) => ({ type: 'set-pane-mode', mode }) as const),
  fc.constantFrom('private', 'public').map((audience) => ({ type: 'set-audience', audience }) as const),
  fc.boolean().map((on) => ({ type: 'set-override', rule: 'length', on })),
);

describe('commands', () => {
  it('can all be undone and done again', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 30 }), (commands) => {
        let now: Versioned = { edit: job.edit, history: EMPTY_HISTORY };
        for (const one of commands) now = recorded(now, applyCommand(now.edit, one, job.master), one, false);
        const end = now.edit;
        for (let i = 0; i < commands.length; i++) now = undone(now);
        expect(now.edit).toEqual(job.edit);
        for (let i = 0; i < commands.length; i++) now = redone(now);
        expect(now.edit).toEqual(end);
      }),
    );
  });

  it('leave a job that reads back the same, with its history', () => {
    fc.assert(
      fc.property(fc.array(command, { maxLength: 12 }), (commands) => {
        let now: Versioned = { edit: job.edit, history: EMPTY_HISTORY };
        for (const one of commands) now = recorded(now, applyCommand(now.edit, one, job.master), one, false);
        const file = { job: { ...job, edit: now.edit }, history: now.history };
        expect(readJob(writeJob(file))).toEqual({ ok: true, file });
      }),
    );
  });

  it('that continue one another are one step', () => {
    const first = recorded(
      { edit: job.edit, history: EMPTY_HISTORY },
      applyCommand(job.edit, framing(0.4), job.master),
      framing(0.4),
      false,
    );
    const second = recorded(first, applyCommand(first.edit, framing(0.3), job.master), framing(0.3), true);
    expect(undone(second).edit).toEqual(job.edit);
  });

  it('change the canvas without losing framing or cut, and end overrides of the old placement', () => {
    const start = [
      framing(0.2),
      { type: 'set-in', frame: 50 } as const,
      { type: 'set-override', rule: 'tag', on: true } as const,
    ].reduce((edit, one: Command) => applyCommand(edit, one, job.master), job.edit);
    const square = applyCommand(
      start,
      { type: 'choose-placement', placement: 'tesselle/square' },
      job.master,
    );
    expect(activeCanvas(square)).toMatchObject({ width: 1080, height: 1080, rate: job.master.rate });
    expect(square.overrides).toEqual([]);
    const back = applyCommand(square, { type: 'choose-placement', placement: 'verrow/short' }, job.master);
    expect({ ...back, overrides: start.overrides }).toEqual(start);
  });

  it('hold in and out points inside the master with at least a frame between', () => {
    const out = applyCommand(job.edit, { type: 'set-out', lastFrame: 99 }, job.master);
    expect(out.cut).toEqual([{ in: 0, out: 100 }]);
    expect(applyCommand(out, { type: 'set-in', frame: 400 }, job.master).cut).toEqual([{ in: 99, out: 100 }]);
    expect(applyCommand(out, { type: 'set-out', lastFrame: 5000 }, job.master).cut).toEqual([
      { in: 0, out: 984 },
    ]);
  });

  it('reset a framing to the middle', () => {
    const set = applyCommand(job.edit, framing(0.1), job.master);
    const reset = applyCommand(set, { type: 'reset-framing', shot: 'shot-1' }, job.master);
    expect(framingOf(reset, shotAt(reset, 5)).keyframes[0]?.focus).toEqual({ x: 0.5, y: 0.5 });
  });
});

describe('a stored job', () => {
  const text = writeJob({ job, history: EMPTY_HISTORY });

  it('of a newer version is told apart from a damaged one', () => {
    const newer = JSON.stringify({ job: { ...job, schemaVersion: 2, more: true }, history: EMPTY_HISTORY });
    expect(readJob(newer)).toMatchObject({ ok: false, problem: 'newer', detail: 'version 2' });
    expect(readJob(text.slice(0, 200))).toMatchObject({ ok: false, problem: 'damaged' });
    expect(readJob(JSON.stringify({ job: { ...job, master: { ...job.master, frames: -1 } } }))).toMatchObject(
      {
        ok: false,
        problem: 'damaged',
        detail: expect.stringContaining('frames'),
      },
    );
  });

  it('with a damaged history opens without it', () => {
    expect(readJob(JSON.stringify({ job, history: { past: 7 } }))).toEqual({
      ok: true,
      file: { job, history: EMPTY_HISTORY },
    });
  });

  it('never throws, whatever stands in storage', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.nat(text.length).map((at) => text.slice(0, at)),
        ),
        (any) => {
          expect(readJob(any)).toHaveProperty('ok');
        },
      ),
    );
  });
});

it('names an export by job, placement and size', () => {
  expect(exportFileName({ ...job, title: 'Kite Day at Windle Bay' })).toBe(
    'kite-day-at-windle-bay_verrow-short_1080x1920.mp4',
  );
  expect(exportFileName({ ...job, title: '../../..' })).toBe('clip_verrow-short_1080x1920.mp4');
  const moved = applyCommand(job.edit, framing(0.3), job.master);
  expect(signatureOf(moved)).not.toBe(signatureOf(job.edit));
  expect(signatureOf({ ...job.edit, words: { title: 'x', description: '', tags: [] } })).toBe(
    signatureOf(job.edit),
  );
});
