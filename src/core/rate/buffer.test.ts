import { canFeedDecoder } from './buffer';

const steady = Array.from({ length: 250 }, () => 40_000);

describe('a decoder’s buffer', () => {
  it('never runs dry at the rate that fills it', () => {
    expect(canFeedDecoder(steady, 25, 1e6)).toBe(true);
  });

  it('runs dry in time where more is taken than comes', () => {
    // 1.8 Mb are there, and 10 kb are missing of each picture: dry after 180 of them.
    const more = steady.map((bits) => bits + 10_000);
    expect(canFeedDecoder(more.slice(0, 176), 25, 1e6)).toBe(true);
    expect(canFeedDecoder(more, 25, 1e6)).toBe(false);
  });

  it('bears a large picture that the calm before has filled it for, and not one larger than itself', () => {
    const calm = steady.map(() => 10_000);
    expect(canFeedDecoder([...calm, 1.99e6], 25, 1e6)).toBe(true);
    expect(canFeedDecoder([1.99e6, ...calm], 25, 1e6)).toBe(false);
    expect(canFeedDecoder([...calm, 2.01e6], 25, 1e6)).toBe(false);
  });
});
