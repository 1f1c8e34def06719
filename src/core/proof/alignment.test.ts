import fc from 'fast-check';
import { alignFilms, sentFrame } from './alignment';
import { THUMB, toThumb, turnThumbs, TURNS } from './thumb';

/** A film of a light that moves over a slope, with noise: each frame is unlike the next. */
function film(frames: number, noise = 0, seed = 1): Uint8Array {
  const thumbs = new Uint8Array(frames * THUMB);
  let state = seed;
  const random = () => ((state = (state * 1_103_515_245 + 12_345) % 2 ** 31) / 2 ** 31) * 2 - 1;
  for (let frame = 0; frame < frames; frame++) {
    for (let n = 0; n < THUMB; n++) {
      const [x, y] = [n % 8, Math.floor(n / 8)];
      const [atX, atY] = [3.5 + 3.5 * Math.sin(frame / 9), 3.5 + 3.5 * Math.sin(frame / 23 + 1)];
      const light = 180 * Math.exp(-((x - atX) ** 2 + (y - atY) ** 2) / 4);
      thumbs[frame * THUMB + n] = Math.max(0, Math.min(255, 20 + 4 * x + 2 * y + light + noise * random()));
    }
  }
  return thumbs;
}
const some = (thumbs: Uint8Array, keep: (frame: number) => boolean): Uint8Array =>
  Uint8Array.from(
    Array.from({ length: thumbs.length / THUMB }, (_, n) => n)
      .filter(keep)
      .flatMap((n) => [...thumbs.subarray(n * THUMB, (n + 1) * THUMB)]),
  );

/** Where frames lie that are so far apart. */
const every = (step: number, count: number) => Array.from({ length: count }, (_, n) => n * step);
const align = (sent: Uint8Array, got: Uint8Array, step = 1) =>
  alignFilms(sent, got, every(step, got.length / THUMB));

describe('a film that came back', () => {
  const sent = film(200);

  it('lies on what was sent frame by frame, also with noise', () => {
    expect(align(sent, film(200, 12, 7)).runs).toEqual([{ from: 0, to: 200, sent: 0 }]);
  });

  it.each([
    ['the beginning', (n: number) => n >= 3, [{ from: 0, to: 197, sent: 3 }]],
    ['the end', (n: number) => n < 197, [{ from: 0, to: 197, sent: 0 }]],
    ['both ends', (n: number) => n >= 40 && n < 90, [{ from: 0, to: 50, sent: 40 }]],
  ])('is found where %s is cut off', (_, keep, runs) => {
    expect(align(sent, some(film(200, 6, 3), keep)).runs).toEqual(runs);
  });

  it('is found on both sides of a cut in between', () => {
    const { runs, missing } = align(
      sent,
      some(film(200, 6, 3), (n) => n < 80 || n >= 110),
    );
    expect(runs).toHaveLength(2);
    expect(sentFrame(runs, 40, every(1, 170))).toBe(40);
    expect(sentFrame(runs, 120, every(1, 170))).toBe(150);
    expect(missing).toEqual({ start: 0, end: 0, between: 30 });
  });

  it('is found at half the rate', () => {
    const { runs, missing } = align(
      sent,
      some(sent, (n) => n % 2 === 0),
      2,
    );
    expect(runs).toEqual([{ from: 0, to: 100, sent: 0 }]);
    expect(sentFrame(runs, 60, every(2, 100))).toBe(120);
    expect(missing).toEqual({ start: 0, end: 0, between: 0 });
  });

  it('is found where its frames come at no even rate, as phones make them', () => {
    // Each fifth and each seventh left out, the others at their times.
    const kept = Array.from({ length: 200 }, (_, n) => n).filter((n) => n % 5 !== 3 && n % 7 !== 4);
    const places = kept.map((n) => n - kept[0]!);
    const found = alignFilms(
      sent,
      some(film(200, 6, 3), (n) => kept.includes(n)),
      places,
    );
    expect(found.runs).toEqual([{ from: 0, to: kept.length, sent: 0 }]);
    expect(found.missing).toEqual({ start: 0, end: 0, between: 0 });
    expect(sentFrame(found.runs, 100, places)).toBe(kept[100]);
  });

  it.each(TURNS)('is found turned by $quarters quarters, mirrored: $mirrored', (turn) => {
    const found = align(sent, turnThumbs(film(200, 6, 3), turn));
    expect(found.difference).toBeLessThan(6);
    expect(turnThumbs(turnThumbs(sent, turn), found.turn)).toEqual(sent);
  });

  it('makes no jumps where nothing moves, and is far from another film', () => {
    const still = Uint8Array.from({ length: 50 * THUMB }, (_, n) => (n % THUMB) * 3);
    expect(align(still, still.slice(0, 40 * THUMB)).runs).toHaveLength(1);
    const other = Uint8Array.from({ length: 200 * THUMB }, (_, n) => 255 - ((n * 37) % 200));
    expect(align(sent, other).difference).toBeGreaterThan(40);
  });
});

it('a film of hours is no copy of a clip', () => {
  const hours = new Uint8Array(3 * 3600 * 24 * THUMB);
  expect(align(film(300), hours).difference).toBe(Infinity);
});

describe('a thumb', () => {
  it('has the means of its fields, whatever the size of the picture', () => {
    fc.assert(
      fc.property(fc.integer({ min: 8, max: 70 }), fc.integer({ min: 8, max: 70 }), (width, height) => {
        const data = Uint8Array.from({ length: width * height }, () => 77);
        expect([...new Set(toThumb({ data, width, height }))]).toEqual([77]);
      }),
    );
    const halves = Uint8Array.from({ length: 16 * 16 }, (_, n) => (n % 16 < 8 ? 10 : 200));
    const thumb = toThumb({ data: halves, width: 16, height: 16 });
    expect([...thumb.subarray(0, 8)]).toEqual([10, 10, 10, 10, 200, 200, 200, 200]);
  });
});
