import fc from 'fast-check';
import { parseRetryAfter, waitBefore } from './retry';

describe('the wait before a next try', () => {
  it('doubles from a second to five minutes, with a quarter of chance', () => {
    expect([1, 2, 3, 4, 20].map((tries) => waitBefore(tries, null, 0.5))).toEqual([1, 2, 4, 8, 300]);
    expect(waitBefore(3, null, 0)).toBe(3);
    expect(waitBefore(3, null, 1)).toBe(5);
  });

  it('is never shorter than what the outlet asks for, up to an hour', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.integer({ min: 0, max: 1e6 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (tries, asked, chance) => {
          const wait = waitBefore(tries, asked, chance);
          expect(wait).toBeGreaterThanOrEqual(Math.min(asked, 3600));
          expect(wait).toBeLessThanOrEqual(3600);
        },
      ),
    );
  });

  it('is read from a header as RFC 9110 has it (10.2.3, its two examples)', () => {
    const now = Date.parse('1999-12-31T23:59:09Z');
    expect(parseRetryAfter('Fri, 31 Dec 1999 23:59:59 GMT', now)).toBe(50);
    expect(parseRetryAfter('120', now)).toBe(120);
    expect(parseRetryAfter('Fri, 31 Dec 1999 23:00:00 GMT', now)).toBe(0);
    expect([parseRetryAfter('soon', now), parseRetryAfter(null, now)]).toEqual([null, null]);
  });
});
