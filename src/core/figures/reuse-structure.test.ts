import fc from 'fast-check';
import { reuseStructure } from './reuse-structure';

describe('a value made of the pieces of an older one', () => {
  it('is like the new one, and the older one itself where nothing changed', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (old, now) => {
        expect(reuseStructure(old, now)).toEqual(now);
        expect(reuseStructure(old, structuredClone(old))).toBe(old);
      }),
      { examples: [[JSON.parse('{ "__proto__": null }'), 0]] },
    );
  });

  it('takes every key for a key, the strangest too', () => {
    const odd = (value: unknown): unknown => JSON.parse(`{ "__proto__": ${JSON.stringify(value)} }`);
    expect(reuseStructure(odd(null), 0)).toBe(0);
    expect(Object.entries(reuseStructure(odd({ a: 1 }), odd({ a: 2 })) as object)).toEqual([
      ['__proto__', { a: 2 }],
    ]);
    const old = odd({ a: 1 });
    expect(reuseStructure(old, odd({ a: 1 }))).toBe(old);
    expect(Object.keys(reuseStructure({}, odd({})) as object)).toEqual(['__proto__']);
  });

  it('keeps the branches that did not change', () => {
    const old = { shots: [{ id: 'a' }, { id: 'b' }], words: { title: 'x' } };
    const now = reuseStructure(old, { shots: [{ id: 'a' }, { id: 'c' }], words: { title: 'x' } });
    expect(now.words).toBe(old.words);
    expect(now.shots[0]).toBe(old.shots[0]);
    expect(now.shots).not.toBe(old.shots);
    expect(reuseStructure([1, 2, 3], [1, 2])).toEqual([1, 2]);
    expect(reuseStructure({ a: undefined }, {})).toEqual({});
  });
});
