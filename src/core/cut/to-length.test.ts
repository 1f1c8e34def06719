import fc from 'fast-check';
import { rangeLength } from './cut';
import { type Candidate, proposals } from './fit-length';
import { splitCut } from './parts';
import { findSnapPoint, snapPoints } from './snap';
import { testShot } from '../job/test-job';

const total = (cut: { in: number; out: number }[]) =>
  cut.reduce((sum, range) => sum + range.out - range.in, 0);
const shotsOf = fc
  .array(fc.tuple(fc.integer({ min: 5, max: 300 }), fc.nat(30), fc.integer({ min: -60, max: -5 })), {
    minLength: 1,
    maxLength: 14,
  })
  .map((parts) => {
    let start = 0;
    return parts.map(([length, motion, loudness]): Candidate => {
      const range = { master: 'a', in: start, out: start + length, motion, loudness };
      start += length;
      return range;
    });
  });

describe('fitting to a length', () => {
  it('gives up to three different ways, none too long, all in playing order', () => {
    fc.assert(
      fc.property(
        shotsOf,
        fc.integer({ min: 10, max: 900 }),
        fc.boolean(),
        fc.boolean(),
        (shots, frames, keepFirst, keepLast) => {
          const found = proposals({ shots, frames, keepFirst, keepLast, pauses: [] });
          expect(found.length).toBeLessThanOrEqual(3);
          expect(new Set(found.map((proposal) => JSON.stringify(proposal.cut))).size).toBe(found.length);
          if (total(shots) <= frames) expect(found).toEqual([]);
          for (const proposal of found) {
            expect(proposal.frames).toBe(total(proposal.cut));
            expect(proposal.frames).toBeLessThanOrEqual(frames);
            proposal.cut.forEach((range, i) =>
              expect(range.in).toBeGreaterThanOrEqual(proposal.cut[i - 1]?.out ?? 0),
            );
            if (keepFirst) expect(proposal.cut[0]!.in).toBe(0);
            if (keepLast && !(keepFirst && shots.length === 1))
              expect(proposal.cut[proposal.cut.length - 1]!.out).toBe(total(shots));
          }
        },
      ),
    );
  });

  const film: Candidate[] = [0, 1, 2, 3, 4].map((i) => ({
    master: 'a',
    in: i * 100,
    out: i * 100 + 100,
    motion: [1, 9, 2, 8, 1][i]!,
    loudness: [-10, -30, -12, -40, -11][i]!,
  }));

  it('favours movement in one, sound in another', () => {
    const found = proposals({ shots: film, frames: 200, keepFirst: false, keepLast: false, pauses: [] });
    const by = (name: string) => found.find((proposal) => proposal.by === name)?.cut.map((range) => range.in);
    expect(by('movement')).toEqual([100, 300]);
    expect(by('sound')).toEqual([0, 400]);
  });

  it('shortens at a pause rather than in the middle of a word', () => {
    const pauses = [{ master: 'a', in: 35, out: 45 }];
    const [proposal] = proposals({
      shots: film.slice(0, 1).concat(film.slice(1, 2)),
      frames: 50,
      keepFirst: true,
      keepLast: false,
      pauses,
    });
    expect(proposal?.cut).toEqual([{ master: 'a', in: 0, out: 45 }].map((range) => ({ ...range, out: 35 })));
  });
});

describe('parts', () => {
  const range = (start: number, length: number) => ({ master: 'a', in: start, out: start + length });
  const divisions = fc.array(
    fc.record({ frame: fc.nat(3000), kind: fc.constantFrom('shot' as const, 'pause' as const) }),
    { maxLength: 40 },
  );

  it('hold every frame, none longer than asked, as few as fit, overlapping by as much as asked', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 3000 }),
        fc.integer({ min: 60, max: 900 }),
        fc.nat(25),
        divisions,
        (length, most, overlap, frames) => {
          const parts = splitCut([range(50, length)], { most, overlap, divisions: frames });
          const lengths = parts.map(total);
          for (const length of lengths) expect(length).toBeLessThanOrEqual(most);
          expect(parts).toHaveLength(length <= most ? 1 : Math.ceil((length - overlap) / (most - overlap)));
          parts.forEach((part, i) => {
            expect(part[0]!.in).toBe(i === 0 ? 50 : parts[i - 1]![0]!.out - overlap);
            expect(part).toHaveLength(1);
          });
          expect(parts[parts.length - 1]![0]!.out).toBe(50 + length);
        },
      ),
    );
  });

  it('divide at the shot near the even split', () => {
    const parts = splitCut([range(0, 1000)], {
      most: 600,
      overlap: 0,
      divisions: [
        { frame: 470, kind: 'shot' },
        { frame: 505, kind: 'pause' },
      ],
    });
    expect(parts.map(total)).toEqual([470, 530]);
    expect(() => splitCut([range(0, 1000)], { most: 600, overlap: 400, divisions: [] })).toThrow(RangeError);
  });
});

describe('snapping', () => {
  const points = snapPoints(
    [testShot('a', 0, 100), testShot('b', 100, 500)],
    [{ from: 10, to: 10.4 }],
    { num: 25, den: 1 },
    500,
  );
  it('meets shots, pauses and ends within reach, and a shot before a pause as near', () => {
    expect(points.map(({ frame, kind }) => `${kind} ${frame}`)).toEqual([
      'end 0',
      'shot 100',
      'pause 255',
      'end 500',
    ]);
    expect(findSnapPoint(104, points, 5)?.frame).toBe(100);
    expect(findSnapPoint(106, points, 5)).toBeNull();
    expect(findSnapPoint(260, points, 9)?.kind).toBe('pause');
    expect(rangeLength({ master: 'a', in: 2, out: 5 })).toBe(3);
  });
});
