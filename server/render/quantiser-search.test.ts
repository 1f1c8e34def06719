import { chooseQuantiser, type TriedQuantiser } from './quantiser-search';

/** A film whose rate halves by so many quantisers. */
const film = (halves: number) => (quantiser: number) => 5e6 * 2 ** ((26 - quantiser) / halves);

describe('the quantiser of a rate', () => {
  it.each([3, 6, 10])('is found in three tries of a film whose rate halves by %d', (halves) => {
    const rateOf = film(halves);
    const tried: TriedQuantiser[] = [];
    for (const bits of [2e6, 2e6, 2e6]) {
      const quantiser = chooseQuantiser(bits, tried);
      tried.push({ quantiser, came: rateOf(quantiser) });
    }
    expect(tried[2]!.came / 2e6).toBeCloseTo(1, 1);
    // What lies between two that are known is found at once.
    const between = chooseQuantiser(3e6, tried);
    expect(rateOf(between) / 3e6).toBeCloseTo(1, 1);
  });

  it('stays on the scale', () => {
    const one = [{ quantiser: 26, came: 5e6 }];
    expect(chooseQuantiser(1, one)).toBe(51);
    expect(chooseQuantiser(1e12, one)).toBe(1);
    // Two of the same rate say nothing of the film.
    expect(chooseQuantiser(1e6, [...one, { quantiser: 20, came: 5e6 }])).toBeGreaterThan(26);
  });
});
