import { memoize } from './memoize';

describe('a function that remembers its results', () => {
  it('works once for the same objects and values, whatever these come to', () => {
    const work = jest.fn((a: object, b: number | undefined) => (b === 0 ? undefined : [a, b]));
    const remembered = memoize(work);
    const [one, two] = [{}, {}];
    const first = remembered(one, 1);
    expect(remembered(one, 1)).toBe(first);
    expect(remembered(one, 2)).toEqual([one, 2]);
    expect(remembered(two, 1)).not.toBe(first);
    expect([remembered(one, undefined), remembered(one, NaN)]).toEqual([
      [one, undefined],
      [one, NaN],
    ]);
    expect([remembered(one, 0), remembered(one, 0), remembered(one, NaN)].slice(0, 2)).toEqual([
      undefined,
      undefined,
    ]);
    expect(work).toHaveBeenCalledTimes(6);
  });

  it('goes by its keys where some are named', () => {
    const work = jest.fn(({ text }: { text: string[]; seen: number }) => text.join());
    const remembered = memoize(work, ({ text }) => [text]);
    const text = ['a', 'b'];
    expect([remembered({ text, seen: 1 }), remembered({ text, seen: 2 })]).toEqual(['a,b', 'a,b']);
    expect(work).toHaveBeenCalledTimes(1);
    expect(remembered({ text: ['c'], seen: 2 })).toBe('c');
  });

  it('forgets a work that failed, and tries it again', () => {
    const work = jest
      .fn((_: object) => 'done')
      .mockImplementationOnce(() => {
        throw new Error('no');
      });
    const remembered = memoize(work);
    const key = {};
    expect(() => remembered(key)).toThrow('no');
    expect(remembered(key)).toBe('done');
  });
});
