import fc from 'fast-check';
import { readNumber } from './number-entry';

const problemOf = (text: string, limits = {}) => {
  const read = readNumber(text, limits);
  return typeof read === 'number' ? null : read.problem;
};

describe('a typed number', () => {
  it.each([
    ['12', 12],
    [' 2,5 ', 2.5],
    ['−7.25°', -7.25],
    ['-7.25', -7.25],
    ['+3', 3],
    ['1.5×', 1.5],
    ['8 Mb/s', 8],
    ['.5', 0.5],
    ['4.', 4],
  ])('is read from “%s”', (text, value) => expect(readNumber(text, {})).toBe(value));

  it.each(['', '  ', 'wide', '1.2.3', '1 2', '--3', '1:20', 'NaN', 'Infinity', '1e3x4'])(
    'is not read from “%s”',
    (text) => expect(problemOf(text)).toMatch(/is not a number\. Type a number\.$/),
  );

  it('says its bounds where it is out of them', () => {
    const limits = { least: 1, most: 8 };
    expect(problemOf('0.5', limits)).toBe('0.5 is less than 1. Type a number from 1 to 8.');
    expect(problemOf('12', limits)).toBe('12 is more than 8. Type a number from 1 to 8.');
    expect(problemOf('wide', limits)).toBe('“wide” is not a number. Type a number from 1 to 8.');
    expect(problemOf('-1', { least: 0 })).toBe('-1 is less than 0. Type a number of 0 or more.');
    expect([1, 8].map((edge) => readNumber(String(edge), limits))).toEqual([1, 8]);
  });

  it('comes back as it was written, whatever its size', () => {
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (value) => {
        const text = value.toFixed(3);
        expect(readNumber(text, {})).toBe(Number(text));
        expect(readNumber(text.replace('.', ',').replace('-', '−'), {})).toBe(Number(text));
      }),
    );
  });
});
