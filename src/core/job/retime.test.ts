import fc from 'fast-check';
import type { Framing } from '../framing/framing';
import { scaleFrames, type FrameRate } from '../time/frame-rate';
import { activeClip, type Edit } from './job';
import { NO_REPAIRS } from '../master/repairs';
import { STANDARD_RATES } from '../time/frame-rate';
import { applyCommand } from './commands/commands';
import { findSource } from './job';
import { referenceFaults } from './references';
import { type RateChange, retimeEdit, toRateChange } from './retime';
import { testFraming, testJob, TEST_MASTER, testRange, testShot } from './test-job';

const RATES: FrameRate[] = [
  { num: 60, den: 1 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 24000, den: 1001 },
  { num: 50, den: 3 },
];
const [SIXTY, FILM] = RATES as [FrameRate, FrameRate];
const FRAMES = 100;
/** A change of the rate of a master of that many frames at 60 fps. */
const between = (before: FrameRate, after: FrameRate): RateChange => {
  const paced = (rate: FrameRate) => ({ rate, frames: scaleFrames(FRAMES, SIXTY, rate) });
  return toRateChange(paced(before), paced(after));
};

const keyed = (shot: string, frames: number[]): Framing => {
  const plain = testFraming();
  const [key] = plain.keyframes;
  return { ...plain, shot, keyframes: frames.map((frame, i) => ({ ...key!, zoom: 1 + i, frame })) };
};

function editOf(starts: number[], keys: number[], ranges: [number, number][]): Edit {
  const { edit } = testJob({ rate: SIXTY, frames: FRAMES });
  const cuts = [0, ...starts];
  return {
    ...edit,
    ticks: Object.fromEntries(cuts.map((_, i) => [`${TEST_MASTER}-${i}`, 'played'])),
    shots: cuts.map((first, i) => testShot(`${TEST_MASTER}-${i}`, first, cuts[i + 1] ?? FRAMES)),
    framings: [keyed(`${TEST_MASTER}-0`, keys)],
    clips: [{ ...activeClip(edit), cut: ranges.map(([first, out]) => testRange(first, out)) }],
  };
}

const ordered = (most: number) =>
  fc
    .uniqueArray(fc.integer({ min: 1, max: FRAMES - 1 }), { maxLength: most })
    .map((all) => all.sort((a, b) => a - b));
const some = fc
  .tuple(
    ordered(12),
    ordered(6),
    fc.array(fc.tuple(fc.nat(FRAMES - 2), fc.integer({ min: 1, max: 30 })), { minLength: 1, maxLength: 5 }),
  )
  .map(([starts, keys, ranges]) =>
    editOf(
      starts,
      [0, ...keys],
      ranges.map(([first, long]) => [first, Math.min(FRAMES, first + long)]),
    ),
  );

describe("a change of a master's rate", () => {
  it('leaves shots that tile the master, keyframes that follow, and ranges inside it', () => {
    fc.assert(
      fc.property(some, fc.constantFrom(...RATES.slice(1)), (edit, rate) => {
        const now = retimeEdit(edit, TEST_MASTER, between(SIXTY, rate));
        const total = scaleFrames(FRAMES, SIXTY, rate);
        now.shots.forEach((shot, i) => {
          expect(shot.in).toBe(now.shots[i - 1]?.out ?? 0);
          expect(shot.out).toBeGreaterThan(shot.in);
        });
        expect(now.shots[now.shots.length - 1]!.out).toBe(total);
        for (const { keyframes } of now.framings) {
          keyframes.slice(1).forEach((key, i) => expect(key.frame).toBeGreaterThan(keyframes[i]!.frame));
        }
        for (const range of activeClip(now).cut) {
          expect(range.out).toBeGreaterThan(range.in);
          expect(range.out).toBeLessThanOrEqual(total);
        }
      }),
    );
  });

  it('comes back exactly, by whatever rates it went', () => {
    fc.assert(
      fc.property(some, fc.array(fc.constantFrom(...RATES), { maxLength: 5 }), (edit, rates) => {
        let now = edit;
        let before = SIXTY;
        for (const rate of [...rates, SIXTY]) {
          now = retimeEdit(now, TEST_MASTER, between(before, rate));
          before = rate;
        }
        expect(now).toEqual(edit);
      }),
    );
  });

  it('keeps shots that are shorter than a frame until they have a place again', () => {
    const edit = editOf([1, 2], [0], [[0, 100]]);
    const slow = retimeEdit(edit, TEST_MASTER, between(SIXTY, FILM));
    expect(slow.shots.map((shot) => [shot.in, shot.out])).toEqual([
      [0, 1],
      [1, 40],
    ]);
    expect(activeClip(slow).cut).toEqual([testRange(0, 40)]);
    expect(retimeEdit(slow, TEST_MASTER, between(FILM, SIXTY))).toEqual(edit);
  });

  it('comes back exactly beside a second master whose rate is changed meanwhile', () => {
    const other = (first: number, out: number) => ({ master: 'b'.repeat(12), in: first, out });
    const edit = editOf([], [0], [[0, 1]]);
    const cut = [testRange(1, 3), other(1, 9), testRange(7, 8), other(11, 12)];
    const mixed = { ...edit, clips: [{ ...activeClip(edit), cut }] };
    const ways: [string, FrameRate, FrameRate][] = [
      [TEST_MASTER, SIXTY, FILM],
      ['b'.repeat(12), SIXTY, FILM],
      [TEST_MASTER, FILM, SIXTY],
      ['b'.repeat(12), FILM, SIXTY],
    ];
    const back = ways.reduce((now, [master, from, to]) => retimeEdit(now, master, between(from, to)), mixed);
    expect(back).toEqual(mixed);
  });

  it('does not undo what was changed meanwhile', () => {
    const edit = editOf([50], [0], [[0, 100]]);
    const slow = retimeEdit(edit, TEST_MASTER, between(SIXTY, FILM));
    const clip = { ...activeClip(slow), cut: [testRange(4, 20)] };
    const back = retimeEdit({ ...slow, clips: [clip] }, TEST_MASTER, between(FILM, SIXTY));
    expect(activeClip(back).cut).toEqual([testRange(10, 50)]);
    expect(back.shots).toEqual(edit.shots);
  });

  it('leaves a job that opens, whatever is cut between changes', () => {
    const step = fc.record({
      rate: fc.option(fc.constantFrom(...STANDARD_RATES, { num: 15, den: 1 }, { num: 50, den: 3 })),
      from: fc.double({ min: 0, max: 1, noNaN: true }),
      lasts: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 2000 }),
        fc.constantFrom(...STANDARD_RATES),
        fc.array(step, { minLength: 1, maxLength: 6 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 30 }), { maxLength: 8 }),
        (frames, rate, steps, cuts) => {
          let job = testJob({ rate, frames });
          const starts = [0, ...cuts.filter((cut) => cut < frames).sort((a, b) => a - b)];
          const shots = starts.map((start, i) =>
            testShot(`${TEST_MASTER}-${i}`, start, starts[i + 1] ?? frames),
          );
          job = { ...job, edit: { ...job.edit, shots } };
          for (const { rate: next, from, lasts } of steps) {
            const source = findSource(job, TEST_MASTER);
            const repairs = { ...NO_REPAIRS, rate: next };
            const after = findSource(
              { ...job, edit: { ...job.edit, repairs: { [TEST_MASTER]: repairs } } },
              TEST_MASTER,
            );
            const rates = toRateChange(source, after);
            let edit = applyCommand(job.edit, { type: 'set-repairs', master: TEST_MASTER, repairs, rates });
            // What is kept ends at the master's end as often as not.
            const first = Math.min(after.frames - 1, Math.floor(from * after.frames));
            const out = lasts > 0.5 ? after.frames : first + 1;
            edit = applyCommand(edit, { type: 'set-cut', act: 'trim', cut: [testRange(first, out)] });
            for (const { id } of edit.shots)
              edit = applyCommand(edit, { type: 'tick-shot', shot: id, signature: 'played' });
            job = { ...job, edit };
            expect(referenceFaults(job)).toEqual([]);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});
