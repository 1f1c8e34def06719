import { pictureOf, type Scene } from '../../../tests/moving-pictures';
import { drawn } from '../../../tests/soak';
import { PatchTracker } from './patch-tracker';
import { computeOverlap } from './track';

const scene = (more: Partial<Scene>): Scene => ({
  ...{ width: 320, height: 180, seed: 9, grain: 4, subject: () => null },
  camera: (t) => ({ x: 12 * t + 2 * Math.sin(9 * t), y: 2 * Math.cos(7 * t), turn: 0, zoom: 1 }),
  ...more,
});
type Place = { x: number; y: number; radius: number };
const boxOf = ({ x, y, radius }: Place) => ({
  x: x - radius,
  y: y - radius,
  width: 2 * radius,
  height: 2 * radius,
});

/** Follows a scene's subject ten times a second. */
function followed(shot: Scene, seconds: number) {
  const start = shot.subject(0)!;
  const tracker = new PatchTracker(pictureOf(shot, 0), boxOf(start));
  return Array.from({ length: seconds * 10 }, (_, i) => {
    const t = (i + 1) / 10;
    return { t, truth: shot.subject(t), place: tracker.next(pictureOf(shot, t)) };
  });
}

describe('a box that is followed by what it looks like', () => {
  it.each(drawn([7, 16, 34], 2))(
    'stays on a subject of radius %i, over moving ground, with grain',
    (radius) => {
      const shot = scene({
        subject: (t) => ({ x: 60 + 45 * t, y: 90 + 30 * Math.sin(1.5 * t), radius }),
      });
      for (const { truth, place } of followed(shot, 4)) {
        expect(place.found).toBe(true);
        expect(computeOverlap(place.box, boxOf(truth!))).toBeGreaterThan(0.6);
      }
    },
  );

  it('grows and shrinks with the subject', () => {
    const shot = scene({ subject: (t) => ({ x: 150, y: 90, radius: 20 + 4 * t }) });
    const last = followed(shot, 4).at(-1)!;
    expect(computeOverlap(last.place.box, boxOf(last.truth!))).toBeGreaterThan(0.6);
  });

  it('knows when it has lost it, and finds it again', () => {
    const shot = scene({
      subject: (t) => (t > 1.5 && t < 2.5 ? null : { x: 80 + 30 * t, y: 90, radius: 18 }),
    });
    const all = followed(shot, 4);
    const hidden = all.filter(({ truth }) => !truth);
    expect(hidden.filter(({ place }) => !place.found).length).toBeGreaterThanOrEqual(hidden.length - 1);
    const back = all.filter(({ t }) => t > 3);
    for (const { truth, place } of back) {
      expect(place.found).toBe(true);
      expect(computeOverlap(place.box, boxOf(truth!))).toBeGreaterThan(0.5);
    }
  });

  it('finds nothing in a picture without texture', () => {
    const shot = scene({ subject: () => ({ x: 100, y: 90, radius: 20 }) });
    const tracker = new PatchTracker(pictureOf(shot, 0), boxOf({ x: 100, y: 90, radius: 20 }));
    const flat = { width: 320, height: 180, data: new Uint8Array(320 * 180).fill(100) };
    expect(tracker.next(flat).found).toBe(false);
  });
});
