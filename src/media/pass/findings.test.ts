import { toSource } from '@core/master/source';
import type { Grey } from '@core/pass/grey';
import { testMaster } from '@core/job/test-job';
import { FILM_HEIGHT, FILM_WIDTH, makeFilm } from '../../../tests/film-maker';
import { PassFindings } from './findings';
import type { FrameMeasurements } from './lane-protocol';

const source = toSource(testMaster({ rate: { num: 25, den: 1 } }));
const seenOf = (frame: number, grey: Grey, change: Partial<FrameMeasurements> = {}): FrameMeasurements => ({
  frame,
  grey,
  bright: null,
  combs: null,
  order: null,
  tile: null,
  ...change,
});
const flat = (level: number): Grey => ({
  width: FILM_WIDTH,
  height: FILM_HEIGHT,
  data: new Uint8Array(FILM_WIDTH * FILM_HEIGHT).fill(level),
});
/** Counts of a picture with bars of so many rows above and below. */
const barred = (bar: number) => ({
  rows: Int32Array.from({ length: 90 }, (_, y) => (y < bar || y >= 90 - bar ? 0 : 160)),
  columns: Int32Array.from({ length: 160 }, () => 90 - 2 * bar),
});

describe('what a pass found', () => {
  it('names shots by the numbers of their frames, which a varying rate makes skip', () => {
    const film = makeFilm(5, ['cut', 'cut'], 0);
    const findings = new PassFindings(source);
    film.frames.forEach((grey, i) => findings.push(seenOf(i * 2, grey)));
    const { shots, motion } = findings.finish();
    expect(film.cuts).toHaveLength(2);
    expect(shots.map((shot) => shot.frame)).toEqual([0, ...film.cuts.map((cut) => cut * 2)]);
    expect(motion).toHaveLength(Math.floor(((film.frames.length - 1) * 2) / 25) + 1);
  });

  it('gives a shot a live area of its own only where it differs from the whole', () => {
    const findings = new PassFindings(source);
    for (let n = 0; n < 200; n++) findings.push(seenOf(n, flat(90), { bright: n % 6 ? null : barred(10) }));
    const { live, liveConfidence, shots } = findings.finish();
    expect(live?.y).toBeCloseTo(10 / 90, 2);
    expect(live?.height).toBeCloseTo(70 / 90, 2);
    expect(liveConfidence).toBeGreaterThan(0.5);
    expect(shots).toEqual([{ frame: 0, start: null, live: null }]);
  });

  it('tells how much combs, and which field came first once three have shown it', () => {
    const of = (orders: number[]) => {
      const findings = new PassFindings(source);
      orders.forEach((order, n) => findings.push(seenOf(n, flat(90), { combs: n % 2 === 0, order })));
      return findings.finish();
    };
    expect(of([1.4, 1.3])).toMatchObject({ combed: 0.5, topFirst: null });
    expect(of([1.4, 1.3, 1.2, 1.5])).toMatchObject({ topFirst: true });
    expect(of([0.7, 0.6, 0.8, 0.9])).toMatchObject({ topFirst: false });
    expect(of([0.7, 1.6, 0.8, 1.2])).toMatchObject({ topFirst: null });
  });

  it('finds one still shot in a file of one frame', () => {
    const findings = new PassFindings(source);
    findings.push(seenOf(0, flat(90)));
    expect(findings.finish()).toEqual({
      shots: [{ frame: 0, start: null, live: null }],
      live: null,
      liveConfidence: 0,
      combed: 0,
      topFirst: null,
      motion: [0],
    });
  });
});
