import { random } from '../../../tests/random';
import type { PictureRect } from '../picture/size';
import type { Sample, Sighting } from './evidence';
import { computeCoveredShare, computeOverlap, findTrackPoint } from './track';
import { buildTracks } from './tracks';

const RATE = 25;
const boxAround = (x: number, y: number, size: number): PictureRect => ({
  ...{ x: x - size / 2, y: y - size / 2, width: size, height: size },
});

/** A subject of a made-up shot, by time in seconds; null where it is hidden. */
interface Actor {
  look: number[];
  at(seconds: number): { x: number; y: number; size: number } | null;
}

/** Samples what a detector would see of some actors five times a second, with jitter and misses. */
function samplesOf(actors: readonly Actor[], seconds: number, next: () => number, missing = 0.1): Sample[] {
  return Array.from({ length: Math.floor(seconds * 5) }, (_, n) => {
    const seen = actors.flatMap(({ at, look }): Sighting[] => {
      const place = at(n / 5);
      if (!place || next() < missing) return [];
      const shaken = () => (next() - 0.5) * 0.1 * place.size;
      const box = boxAround(place.x + shaken(), place.y + shaken(), place.size * (0.95 + 0.1 * next()));
      const levels = look.map((level) => level + (next() - 0.5) * 12);
      return [{ kind: 'person', confidence: 0.4 + 0.4 * next(), box, look: levels }];
    });
    return { frame: n * 5, detected: true, seen };
  });
}

const RED = [90, 100, 200, 80, 110, 190];
const BLUE = [70, 190, 100, 60, 180, 110];

describe('tracks of subjects', () => {
  it('keep one number through a whole shot, also with misses, and lie where the subject is', () => {
    const actor: Actor = {
      look: RED,
      at: (t) => ({ x: 0.1 + 0.1 * t, y: 0.5 + 0.1 * Math.sin(t), size: 0.15 }),
    };
    const [track, ...others] = buildTracks(samplesOf([actor], 8, random(3), 0.2), RATE);
    expect(others).toEqual([]);
    for (let frame = 20; frame < 180; frame += 7) {
      const truth = actor.at(frame / RATE)!;
      expect(
        computeOverlap(findTrackPoint(track!, frame)!.box, boxAround(truth.x, truth.y, truth.size)),
      ).toBeGreaterThan(0.8);
    }
  });

  it('keep the size of what goes behind something, and take what shows on the other side for the same', () => {
    const [size, post] = [0.24, { from: 0.44, to: 0.54 }];
    const middle = (t: number) => 0.15 + 0.13 * t;
    const samples = Array.from({ length: 27 }, (_, n): Sample => {
      const [left, right] = [middle(n / 5) - size / 2, middle(n / 5) + size / 2];
      // What shows of it on each side of the post.
      const parts = [
        [left, Math.min(right, post.from)],
        [Math.max(left, post.to), right],
      ].filter(([from, to]) => to! - from! > 0.03);
      const seen = parts.map(([from, to]): Sighting => ({
        ...{ kind: 'animal', confidence: 0.5, look: RED },
        box: { x: from!, y: 0.4, width: to! - from!, height: 0.2 },
      }));
      return { frame: n * 5, detected: true, seen };
    });
    const tracks = buildTracks(samples, RATE);
    expect(tracks).toHaveLength(1);
    for (let frame = 15; frame < 130; frame += 5) {
      const { box } = findTrackPoint(tracks[0]!, frame)!;
      expect(box.width).toBeGreaterThan(0.7 * size);
      expect(Math.abs(box.x + box.width / 2 - middle(frame / RATE))).toBeLessThan(0.2 * size);
    }
  });

  it('are held while a subject hides for a moment, and say that it was not seen', () => {
    const actor: Actor = {
      look: RED,
      at: (t) => (t > 3 && t < 4 ? null : { x: 0.1 + 0.1 * t, y: 0.5, size: 0.12 }),
    };
    const tracks = buildTracks(samplesOf([actor], 8, random(5), 0), RATE);
    expect(tracks).toHaveLength(1);
    expect(findTrackPoint(tracks[0]!, 3.6 * RATE)).toMatchObject({ confidence: 0 });
    expect(findTrackPoint(tracks[0]!, 3.6 * RATE)!.box.x).toBeCloseTo(0.1 + 0.36 - 0.06, 1);
    expect(findTrackPoint(tracks[0]!, 8.5 * RATE)).toBeNull();
  });

  it('end when a subject stays away, and another begins', () => {
    const actor: Actor = {
      look: RED,
      at: (t) => (t > 3 && t < 6 ? null : { x: 0.3, y: 0.5, size: 0.12 }),
    };
    expect(buildTracks(samplesOf([actor], 9, random(5), 0), RATE)).toHaveLength(2);
  });

  it('take no two subjects for each other where they cross, in 95 of 100 crossings', () => {
    let kept = 0;
    for (let n = 0; n < 100; n++) {
      const next = random(n + 11);
      const [speed, size] = [0.08 + 0.12 * next(), 0.08 + 0.14 * next()];
      const meet = 2 + next();
      // The one behind hides while more than half of it is covered.
      const front: Actor = { look: RED, at: (t) => ({ x: 0.5 + speed * (t - meet), y: 0.5, size }) };
      const tilt = (next() - 0.5) * 0.06;
      const back: Actor = {
        look: next() < 0.5 ? BLUE : RED,
        at: (t) => {
          const place = { x: 0.5 - speed * (t - meet), y: 0.5 + tilt * (t - meet), size: size * 0.95 };
          const other = front.at(t)!;
          const hidden = computeCoveredShare(
            boxAround(place.x, place.y, place.size),
            boxAround(other.x, other.y, size),
          );
          return hidden > 0.5 ? null : place;
        },
      };
      const tracks = buildTracks(samplesOf([front, back], 5, next), RATE);
      const ends = [front, back].map((actor) =>
        [0.6, 4.2].map((t) => {
          const truth = actor.at(t)!;
          return tracks.findIndex((track) => {
            const found = findTrackPoint(track, t * RATE);
            return found && computeOverlap(found.box, boxAround(truth.x, truth.y, truth.size)) > 0.5;
          });
        }),
      );
      if (ends.every(([before, after]) => before === after && before !== -1)) kept += 1;
    }
    expect(kept).toBeGreaterThanOrEqual(95);
  });

  it('keep each number in a crowd', () => {
    const crowd = Array.from({ length: 8 }, (_, i): Actor => {
      const way = i % 2 === 0 ? 1 : -1;
      return {
        look: RED.map((level, k) => level + 12 * ((i * (k + 3)) % 5)),
        at: (t) => ({ x: 0.5 - way * 0.35 + way * 0.1 * t, y: 0.15 + 0.1 * i, size: 0.08 }),
      };
    });
    const tracks = buildTracks(samplesOf(crowd, 7, random(2)), RATE);
    const whole = tracks.filter(({ points }) => points.length > 28);
    expect(whole).toHaveLength(8);
  });

  it('take no notice of what is hardly seen, or seen once', () => {
    const stray: Sighting = { kind: 'thing', confidence: 0.25, box: boxAround(0.5, 0.5, 0.1), look: null };
    const sample = (frame: number, seen: Sighting[]): Sample => ({ frame, detected: true, seen });
    expect(buildTracks([sample(0, [stray]), sample(5, [stray]), sample(10, [stray])], RATE)).toEqual([]);
    expect(buildTracks([sample(0, [{ ...stray, confidence: 0.9 }]), sample(5, [])], RATE)).toEqual([]);
  });

  it('count two names for one place once', () => {
    const seen = (frame: number): Sample => ({
      frame,
      detected: true,
      seen: [
        { kind: 'person', confidence: 0.6, box: boxAround(0.5, 0.5, 0.1), look: null },
        { kind: 'animal', confidence: 0.5, box: boxAround(0.501, 0.5, 0.1), look: null },
      ],
    });
    const tracks = buildTracks([seen(0), seen(5), seen(10), seen(15)], RATE);
    expect(tracks.map(({ kind }) => kind)).toEqual(['person']);
  });

  it('take pieces of one large thing that moves for one, and two that pass each other for two', () => {
    const seen = (at: (n: number) => PictureRect[]) =>
      Array.from({ length: 20 }, (_, n): Sample => ({
        ...{ frame: n * 3, detected: false },
        seen: at(n).map((box) => ({ kind: 'motion', confidence: 0.8, box, look: null })),
      }));
    const piece = (n: number, width: number) => ({ x: 0.2 + 0.02 * n, y: 0.3, width, height: 0.4 });
    expect(
      buildTracks(
        seen((n) => [piece(n, 0.3), piece(n, 0.12)]),
        RATE,
      ),
    ).toHaveLength(1);
    const passing = (n: number) => [
      boxAround(0.1 + 0.04 * n, 0.3, 0.1),
      boxAround(0.9 - 0.04 * n, 0.42, 0.1),
    ];
    expect(buildTracks(seen(passing), RATE)).toHaveLength(2);
  });
});
