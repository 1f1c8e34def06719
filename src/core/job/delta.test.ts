import fc from 'fast-check';
import { trials } from '../../../tests/soak';
import { computeDelta, withDelta, removeDelta } from './delta';

/** Values with lists whose elements have keys, as edits have. */
const value = fc.record({
  name: fc.string({ maxLength: 3 }),
  list: fc.uniqueArray(
    fc.record({
      frame: fc.nat(8),
      v: fc.nat(2),
      ease: fc.option(fc.tuple(fc.nat(2), fc.nat(2)), { nil: null }),
      inner: fc.uniqueArray(fc.record({ id: fc.constantFrom('a', 'b', 'c', 'd'), on: fc.boolean() }), {
        selector: ({ id }) => id,
        maxLength: 4,
      }),
    }),
    { selector: ({ frame }) => frame, maxLength: 6 },
  ),
  numbers: fc.array(fc.nat(3), { maxLength: 5 }),
});

describe('a delta', () => {
  it('leads from any value to any other, and back', () => {
    fc.assert(
      fc.property(value, value, (before, after) => {
        const delta = computeDelta(before, after);
        if (!delta) return expect(after).toEqual(before);
        // As it is stored.
        const stored = JSON.parse(JSON.stringify(delta)) as typeof delta;
        expect(withDelta(before, stored)).toEqual(after);
        expect(removeDelta(after, stored)).toEqual(before);
      }),
      { numRuns: trials(500, 2000) },
    );
  });

  it('leads back where elements of a list came and changed at once', () => {
    const before = {
      k: [
        { frame: 4, v: 1, ease: null },
        { frame: 7, v: 2, ease: null },
      ],
    };
    const after = {
      k: [0, 3, 4, 6, 7].map((frame) => ({
        frame,
        v: frame % 3,
        ease: frame === 3 ? null : [0.1, 0.2, 0, 1],
      })),
    };
    const delta = computeDelta(before, after)!;
    expect(removeDelta(after, delta)).toEqual(before);
  });

  it('is none between values that say the same', () => {
    expect(computeDelta({ a: [1, { id: 'x' }] }, { a: [1, { id: 'x' }] })).toBeNull();
  });
});
