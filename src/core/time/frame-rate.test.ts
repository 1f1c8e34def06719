import fc from 'fast-check';
import { MAX_FRAMES } from '../figures/bounded';
import { detectRate, nearestStandard } from './detect-rate';
import {
  compareRates,
  MAX_FPS,
  toFrame,
  countFramesWithin,
  rateLabel,
  rateValue,
  countSamplesBefore,
  scaleFrames,
  toSeconds,
  shownFrame,
  STANDARD_RATES,
} from './frame-rate';

const FILM = { num: 24000, den: 1001 };
const stamps = (count: number, rate = FILM, start = 0) =>
  Array.from({ length: count }, (_, n) => start + toSeconds(n, rate));

describe('frame rates', () => {
  it('shows rates as people write them', () => {
    expect(STANDARD_RATES.map(rateLabel)).toEqual([
      '23.976',
      '24',
      '25',
      '29.97',
      '30',
      '48',
      '50',
      '59.94',
      '60',
      '100',
      '119.88',
      '120',
    ]);
  });

  it('turns frames between any two rates exactly, however large their terms are', () => {
    const term = fc.integer({ min: 1, max: 1_000_000 });
    const anyRate = fc.record({ num: term, den: term }).filter(({ num, den }) => num <= MAX_FPS * den);
    fc.assert(
      fc.property(fc.nat(MAX_FRAMES), anyRate, anyRate, (frames, from, to) => {
        const [num, den] = [BigInt(to.num) * BigInt(from.den), BigInt(to.den) * BigInt(from.num)];
        expect(scaleFrames(frames, from, to)).toBe(Number((BigInt(frames) * num + den - 1n) / den));
        expect(shownFrame(frames, to, from)).toBe(Number((BigInt(frames) * num) / den));
        expect(scaleFrames(frames, from, from)).toBe(frames);
      }),
    );
  });

  it('compares exactly', () => {
    expect(compareRates(FILM, { num: 48000, den: 2002 })).toBe(0);
    expect(compareRates(FILM, { num: 24, den: 1 })).toBeLessThan(0);
  });

  it('finds the frame of every frame time', () => {
    fc.assert(
      fc.property(fc.nat(2_000_000), fc.constantFrom(...STANDARD_RATES), (frame, rate) => {
        expect(toFrame(toSeconds(frame, rate), rate)).toBe(frame);
      }),
    );
  });

  // A clip exactly at the limit is legal, one frame more is not (common practice, no source).
  it('counts the frames that a limit allows', () => {
    expect(countFramesWithin(60, { num: 30, den: 1 })).toBe(1800);
    expect(countFramesWithin(60, FILM)).toBe(1438);
    expect(toSeconds(1438, FILM)).toBeLessThanOrEqual(60);
    expect(toSeconds(1439, FILM)).toBeGreaterThan(60);
  });

  it('places sound to the sample, with no drift over a day', () => {
    expect(countSamplesBefore(24000, FILM, 48000)).toBe(48000 * 1001);
    fc.assert(
      fc.property(fc.nat(2_500_000), (frame) => {
        expect(Math.abs(countSamplesBefore(frame, FILM, 48000) - frame * 2002)).toBe(0);
      }),
    );
  });
});

describe('the rate of a track', () => {
  it.each(STANDARD_RATES.map((rate) => [rateLabel(rate), rate] as const))('finds %s exactly', (_, rate) => {
    expect(detectRate(stamps(500, rate), 0)).toMatchObject({ rate, constant: true, frames: 500 });
  });

  it('sees through stamps rounded to milliseconds, in any order', () => {
    const rounded = stamps(2000).map((time) => Math.round(time * 1000) / 1000);
    expect(detectRate(rounded.reverse(), 0)).toMatchObject({ rate: FILM, constant: true, frames: 2000 });
  });

  it('tells 24 from 23.976 on a long track', () => {
    expect(detectRate(stamps(600, { num: 24, den: 1 }), 0).rate).toEqual({ num: 24, den: 1 });
  });

  it('keeps an odd constant rate', () => {
    expect(detectRate(stamps(200, { num: 15, den: 1 }), 0).rate).toEqual({ num: 15, den: 1 });
  });

  it('knows 50/3 as constant over an hour, also where stamps are whole milliseconds', () => {
    const rate = { num: 50, den: 3 };
    expect(detectRate(stamps(60_000, rate), 0)).toMatchObject({ rate, constant: true });
    const rounded = Array.from(stamps(60_000, rate), (stamp) => Math.round(stamp * 1000) / 1000);
    expect(detectRate(rounded, 0)).toMatchObject({ rate, constant: true });
  });

  it('maps a varying rate to the nearest standard one, keeping the length', () => {
    const times = Array.from({ length: 301 }, (_, n) => n / 30 + (n % 3 === 0 ? 0.02 : 0));
    const found = detectRate(times, 0);
    expect(found.constant).toBe(false);
    expect(rateValue(found.rate)).toBeCloseTo(30, 1);
    expect(found.frames).toBeGreaterThan(295);
  });

  it('sees which rate pictures were left out of, on whole milliseconds too', () => {
    for (const rate of [{ num: 25, den: 1 }, FILM, { num: 60, den: 1 }]) {
      const kept = Array.from(stamps(300, rate), (time) => Math.round(time * 1000) / 1000).filter(
        (_, n) => n % 7 !== 3 && n % 11 !== 5,
      );
      const found = detectRate(kept, 0);
      expect(found).toMatchObject({ rate, constant: false, frames: 300, dropped: 0 });
      expect(found.repeated).toBe(300 - kept.length);
    }
  });

  it('takes one frame for a clip of one frame', () => {
    expect(detectRate([0], 0.04)).toMatchObject({ rate: { num: 25, den: 1 }, constant: true, frames: 1 });
    expect(() => detectRate([], 0)).toThrow(RangeError);
    expect(nearestStandard(23.98)).toEqual(FILM);
  });
});
