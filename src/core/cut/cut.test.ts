import fc from 'fast-check';
import {
  type Cut,
  cutFrames,
  rangeStarts,
  cutSchema,
  findRangeIndex,
  rangeLength,
  slowestRate,
  trimCut,
} from './cut';
import {
  joinRanges,
  moveRange,
  removeRange,
  rollEdit,
  slice,
  slipRange,
  split,
  trimRange,
} from './range-edits';

const FILM = { num: 24000, den: 1001 };
const MAX_FRAMES = 900;
const masters = () => ({ rate: FILM, frames: MAX_FRAMES });
const range = fc
  .tuple(fc.constantFrom('a', 'b'), fc.nat(500), fc.integer({ min: 1, max: 200 }))
  .map(([master, start, length]) => ({ master, in: start, out: start + length }));
const cut: fc.Arbitrary<Cut> = fc.array(range, { minLength: 1, maxLength: 6 });
const length = (ranges: { in: number; out: number }[]) => ranges.reduce((sum, it) => sum + it.out - it.in, 0);
const valid = (cut: unknown) => cutSchema.safeParse(cut).success;

describe('a cut', () => {
  it('trimmed keeps its first frames, exactly as many as asked', () => {
    fc.assert(
      fc.property(cut, fc.integer({ min: 1, max: 900 }), (whole, frames) => {
        const kept = trimCut(whole, frames, masters, FILM);
        expect(cutFrames(kept, masters, FILM)).toBe(Math.min(frames, length(whole)));
        kept.forEach((range, i) => expect(range.in).toBe(whole[i]!.in));
        expect(valid(kept)).toBe(true);
      }),
    );
  });

  it('trimmed at another rate is never longer than asked, and as long as can be', () => {
    const rates = [FILM, { num: 25, den: 1 }, { num: 30000, den: 1001 }, { num: 60, den: 1 }];
    fc.assert(
      fc.property(
        cut,
        fc.integer({ min: 5, max: 900 }),
        fc.constantFrom(...rates),
        (whole: Cut, frames: number, rate) => {
          const of = (range: Cut) => cutFrames(range, masters, rate);
          const kept = trimCut(whole, frames, masters, rate);
          expect(of(kept)).toBeLessThanOrEqual(Math.max(frames, 3));
          if (of(whole) > frames) expect(of(kept)).toBeGreaterThan(frames - 4);
        },
      ),
    );
  });

  it('rounds over the whole, not over each range', () => {
    // 378 frames of 24 are 472.5 of 30, whatever ranges they lie in.
    const ranges = [197, 180, 1].map((out) => ({ master: 'a', in: 0, out }));
    const rate = { num: 30000, den: 1001 };
    expect(cutFrames(ranges, masters, rate)).toBe(473);
    expect(trimCut(ranges, 473, masters, rate)).toEqual(ranges);
    expect(trimCut(ranges, 472, masters, rate)).toEqual(ranges.slice(0, 2));
    // Ten parts of 60 s at 24 are 60 s at 25: a part for "at most 60 s" is not stopped.
    const parts = Array.from({ length: 10 }, (_, i) => ({ master: 'a', in: i * 200, out: i * 200 + 144 }));
    const even = (): { rate: typeof rate; frames: number } => ({ rate: { num: 24, den: 1 }, frames: 9000 });
    expect(cutFrames(parts, even, { num: 25, den: 1 })).toBe(1500);
    expect(rangeStarts(parts, even, { num: 25, den: 1 })[5]).toBe(750);
  });

  it('knows which range holds a frame', () => {
    const whole = [
      { master: 'a', in: 10, out: 20 },
      { master: 'b', in: 0, out: 5 },
    ];
    expect([
      findRangeIndex(whole, 'a', 19),
      findRangeIndex(whole, 'b', 4),
      findRangeIndex(whole, 'b', 5),
    ]).toEqual([0, 1, -1]);
  });

  it('knows the slowest rate of its masters', () => {
    const rates: Record<string, number> = { a: 60, b: 25, c: 30 };
    const lengths = (id: string) => ({ rate: { num: rates[id]!, den: 1 }, frames: 9 });
    const whole = ['a', 'b', 'c'].map((master) => ({ master, in: 0, out: 1 }));
    expect(slowestRate(whole, lengths)).toEqual({ num: 25, den: 1 });
  });

  it('is never empty', () => {
    expect(valid([])).toBe(false);
    expect(valid([{ master: 'a', in: 5, out: 5 }])).toBe(false);
  });
});

describe('work on ranges', () => {
  const place = fc.tuple(cut, fc.nat(5), fc.integer({ min: -300, max: 1200 }));

  it('keeps a cut a cut of its masters, whatever is done', () => {
    fc.assert(
      fc.property(place, ([whole, nth, frame]) => {
        const index = nth % whole.length;
        for (const edge of ['in', 'out'] as const) {
          const next = trimRange(whole, index, edge, frame, MAX_FRAMES);
          expect(valid(next)).toBe(true);
          expect(next[index]!.out).toBeLessThanOrEqual(MAX_FRAMES);
        }
        const slid = slipRange(whole, index, frame, MAX_FRAMES);
        expect(valid(slid)).toBe(true);
        expect(rangeLength(slid[index]!)).toBe(rangeLength(whole[index]!));
        expect(valid(removeRange(whole, index))).toBe(true);
        const turned = moveRange(whole, index, frame);
        expect([...turned].sort().length).toBe(whole.length);
        expect(length(turned)).toBe(length(whole));
      }),
    );
  });

  it('splits without losing or doubling a frame, and joins again', () => {
    fc.assert(
      fc.property(cut, fc.nat(5), fc.nat(199), (whole, nth, into) => {
        const index = nth % whole.length;
        const range = whole[index]!;
        const frame = range.in + (into % rangeLength(range));
        const parts = split(whole, index, frame);
        expect(length(parts)).toBe(length(whole));
        expect(parts).toHaveLength(whole.length + (frame === range.in ? 0 : 1));
        expect(length(joinRanges(parts))).toBe(length(whole));
      }),
    );
    expect(joinRanges(split([{ master: 'a', in: 0, out: 9 }], 0, 4))).toEqual([
      { master: 'a', in: 0, out: 9 },
    ]);
    expect(() => split([{ master: 'a', in: 3, out: 9 }], 0, 9)).toThrow(RangeError);
    expect(() => removeRange([{ master: 'a', in: 3, out: 9 }], 1)).toThrow(RangeError);
  });

  it('rolls the cut between two ranges without changing the length', () => {
    fc.assert(
      fc.property(range, range, fc.integer({ min: -250, max: 250 }), (a, b, by) => {
        const whole = [a, b];
        const next = rollEdit(whole, 0, by, MAX_FRAMES);
        expect(length(next)).toBe(length(whole));
        expect(valid(next)).toBe(true);
        if (a.master !== b.master) expect(next).toEqual(whole);
      }),
    );
  });

  it('slices by playing order', () => {
    fc.assert(
      fc.property(cut, fc.nat(800), fc.nat(800), (whole, a, b) => {
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const total = length(whole);
        expect(length(slice(whole, from, to))).toBe(Math.max(0, Math.min(to, total) - Math.min(from, total)));
      }),
    );
  });
});
