import fc from 'fast-check';
import { shared } from './shared';

describe('a value made of the pieces of an older one', () => {
  it('is like the new one, and the older one itself where nothing changed', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (old, now) => {
        expect(shared(old, now)).toEqual(now);
        expect(shared(old, structuredClone(old))).toBe(old);
      }),
    );
  });

  it('keeps the branches that did not change', () => {
    const old = { shots: [{ id: 'a' }, { id: 'b' }], words: { title: 'x' } };
    const now = shared(old, { shots: [{ id: 'a' }, { id: 'c' }], words: { title: 'x' } });
    expect(now.words).toBe(old.words);
    expect(now.shots[0]).toBe(old.shots[0]);
    expect(now.shots).not.toBe(old.shots);
    expect(shared([1, 2, 3], [1, 2])).toEqual([1, 2]);
    expect(shared({ a: undefined }, {})).toEqual({});
  });
});
