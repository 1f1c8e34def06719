import { testPass } from '../job/test-pass';
import type { Pass } from './pass';
import { liveliest, shotFacts } from './shot-facts';

const RATE = { num: 25, den: 1 };
const pass: Pass = {
  ...testPass(),
  motion: [1, 1, 1, 9, 9, 2],
  sound: {
    ...{ integrated: -20, loudest: -10, truePeak: -1, samplePeak: -1 },
    shortTerm: [-40, -40, null, -12, -14, -30],
    pauses: [{ from: 1, to: 2.5 }],
  },
};

describe('what is known of a shot', () => {
  it('is its length, movement, loudness and how much of it is heard', () => {
    expect(shotFacts(pass, { in: 75, out: 125 }, RATE)).toEqual({
      ...{ seconds: 2, motion: 9, loudness: -12, sounding: 1 },
    });
    expect(shotFacts(pass, { in: 0, out: 75 }, RATE)).toMatchObject({
      motion: 1,
      loudness: -40,
      sounding: 0.5,
    });
  });

  it('is its length alone before the master was looked at, and says nothing of sound where there is none', () => {
    expect(shotFacts(null, { in: 0, out: 50 }, RATE)).toEqual({
      ...{ seconds: 2, motion: null, loudness: null, sounding: null },
    });
    expect(shotFacts({ ...pass, sound: null }, { in: 0, out: 50 }, RATE).sounding).toBeNull();
  });

  it('tells the liveliest first', () => {
    const facts = [
      { in: 0, out: 75 },
      { in: 75, out: 125 },
      { in: 125, out: 150 },
    ].map((shot) => shotFacts(pass, shot, RATE));
    expect(liveliest(facts)).toEqual([1, 2, 0]);
    expect(liveliest([])).toEqual([]);
  });
});
