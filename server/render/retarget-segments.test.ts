import { retargetSegments, type EncodedSegment } from './retarget-segments';

const MAX_BITRATE = 2e6;
/** Two seconds of even pictures that come to a rate. */
const segment = (rate: number, change: Partial<EncodedSegment> = {}): EncodedSegment => ({
  ...{ seconds: 2, share: 1e6, asked: { bits: 1e6, held: false } },
  pictures: Array.from({ length: 48 }, () => rate / 24),
  ...change,
});

describe('segments that are made anew', () => {
  it('are none where the whole is what it was to be, whatever one of them is off', () => {
    expect(retargetSegments([segment(1.1e6), segment(0.9e6)], MAX_BITRATE)).toEqual([null, null]);
  });

  it('are those that are off to the side to which the whole is, and are asked for as much less', () => {
    const [over, under] = retargetSegments([segment(1.25e6), segment(0.9e6)], MAX_BITRATE);
    expect(over).toEqual({ bits: 0.8e6, held: false });
    expect(under).toBeNull();
    const [less, near] = retargetSegments([segment(0.8e6), segment(0.999e6)], MAX_BITRATE);
    expect(less?.bits).toBeCloseTo(1.25e6);
    expect(near).toBeNull();
    // No more than the greatest rate, and not again where that was asked for already.
    expect(retargetSegments([segment(0.8e6)], 1.1e6)[0]?.bits).toBe(1.1e6);
    expect(retargetSegments([segment(0.8e6, { asked: { bits: 1.1e6, held: false } })], 1.1e6)).toEqual([
      null,
    ]);
  });

  it('are held from then on where a peak is over the greatest rate, and keep their bits', () => {
    const peak = Array.from({ length: 48 }, (_, n) => (n === 30 ? 1.6e6 : 8.5e3));
    const busy = { pictures: [...peak.slice(0, 31), 1.6e6, ...peak.slice(31, 47)], share: 1.8e6 };
    const asked = (held: boolean) => [segment(0, { ...busy, asked: { bits: 1.8e6, held } })];
    expect(retargetSegments(asked(false), 1e6)).toEqual([{ bits: 1.8e6, held: true }]);
    expect(retargetSegments(asked(false), 10e6)).toEqual([null]);
    expect(retargetSegments(asked(true), 1e6)).toEqual([null]);
  });
});
