import { testPass } from '../job/test-pass';
import type { Speech } from '../speech/speech';
import type { AnalysisResult } from './pass';
import { sortByMovement, sortBySpeech, shotFacts } from './shot-facts';

const RATE = { num: 25, den: 1 };
const pass: AnalysisResult = {
  ...testPass(),
  motion: [1, 1, 1, 9, 9, 2],
  sound: {
    ...{ integrated: -20, loudest: -10, truePeak: -1, samplePeak: -1 },
    shortTerm: [-40, -40, null, -12, -14, -30],
    pauses: [{ from: 1, to: 2.5 }],
  },
};

/** Speech in the first half second, and from second 3 to 3.5. */
const speech: Speech = {
  ...{ schemaVersion: 1, fingerprint: 'a', soundTrack: 0 },
  spans: [
    { from: 0, to: 0.5 },
    { from: 3, to: 3.5 },
  ],
};

describe('what is known of a shot', () => {
  it('is its length, movement, loudness and how much of it is heard', () => {
    expect(shotFacts({ pass, speech }, { in: 75, out: 125 }, RATE)).toEqual({
      ...{ seconds: 2, motion: 9, loudness: -12, sounding: 1, spoken: 0.25 },
    });
    expect(shotFacts({ pass, speech }, { in: 0, out: 75 }, RATE)).toMatchObject({
      motion: 1,
      loudness: -40,
      sounding: 0.5,
    });
  });

  it('is its length alone before the master was looked at, and says nothing of sound where there is none', () => {
    expect(shotFacts({ pass: null, speech: null }, { in: 0, out: 50 }, RATE)).toEqual({
      ...{ seconds: 2, motion: null, loudness: null, sounding: null, spoken: null },
    });
    expect(
      shotFacts({ pass: { ...pass, sound: null }, speech: null }, { in: 0, out: 50 }, RATE).sounding,
    ).toBeNull();
  });

  it('tells the liveliest first, or those with the most speech', () => {
    const facts = [
      { in: 0, out: 75 },
      { in: 75, out: 125 },
      { in: 125, out: 150 },
    ].map((shot) => shotFacts({ pass, speech }, shot, RATE));
    expect(sortByMovement(facts)).toEqual([1, 2, 0]);
    expect(sortByMovement([])).toEqual([]);
    expect(sortBySpeech(facts)).toEqual([1, 0, 2]);
  });
});
