import { RateSearch } from './rate-search';

const RATES = [3e6, 6e6, 9e6, 13.4e6, 20e6, 30e6];

/**
 * Searches the rate of a film whose rate halves by so many quantisers: what was found for each rate, and the
 * number of tries.
 */
function searched(halves: number, at26: number, most = Infinity) {
  const search = new RateSearch(RATES);
  const found: number[] = [];
  for (let tries = 0; ; tries++) {
    const quantiser = search.next();
    if (quantiser === null) return { found, tries };
    const came = Math.min(most, at26 * 2 ** ((26 - quantiser) / halves));
    const place = search.take(quantiser, came);
    if (place !== null) found[place] = came;
  }
}

describe('the search for quantisers of several rates', () => {
  it.each([
    [3, 40e6],
    [6, 5e6],
    [6, 30e6],
    [8, 4e6],
  ])('takes few tries of a film whose rate halves by %d from %d', (halves, at26) => {
    const { found, tries } = searched(halves, at26);
    found.forEach((came, n) => expect(Math.abs(Math.log(came / RATES[n]!))).toBeLessThan(Math.log(1.11)));
    expect(Object.keys(found)).toHaveLength(RATES.length);
    expect(tries).toBeLessThanOrEqual(RATES.length + 3);
  });

  it('takes what a film comes to at most where it cannot fill a rate', () => {
    const { found, tries } = searched(6, 5e6, 7e6);
    expect(found.slice(2)).toEqual([7e6, 7e6, 7e6, 7e6]);
    expect(tries).toBeLessThan(20);
  });

  it('takes a rate that is asked for as such at once', () => {
    const search = new RateSearch([1e6, 2e6], 1);
    expect(search.take(search.next()!, 0.4e6)).toBe(0);
    expect(search.take(search.next()!, 0.5e6)).toBe(1);
    expect(search.next()).toBeNull();
  });
});
