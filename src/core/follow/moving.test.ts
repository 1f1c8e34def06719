import { panning, pictureOf, type Scene, shaking, standing } from '../../../tests/moving-pictures';
import type { Grey } from '../pass/grey';
import { estimateCameraMove, isMovedBack, STILL as NO_MOVE, composeMoves } from './camera';
import { listMovingParts } from './moving';
import { computeOverlap } from './track';

const STILL = { x: 0, y: 0, turn: 0, zoom: 1 };
const scene = (more: Partial<Scene>): Scene => ({
  ...{ width: 320, height: 180, seed: 4, grain: 0, camera: () => STILL, subject: () => null },
  ...more,
});

/** Finds the parts that move between three pictures, a fifth of a second apart. */
const movingPartsOf = (before: Grey, now: Grey, after: Grey) =>
  listMovingParts(
    now,
    { picture: before, move: estimateCameraMove(now, before) },
    { picture: after, move: estimateCameraMove(now, after) },
  );

describe('the move of the camera', () => {
  it.each([
    ['a pan', { x: 14, y: 0, turn: 0, zoom: 1 }],
    ['a shake', { x: -2.5, y: 3.3, turn: 0, zoom: 1 }],
    ['a turn', { x: 0, y: 0, turn: 1.5, zoom: 1 }],
    ['a push', { x: 0, y: 0, turn: 0, zoom: 1.03 }],
    ['all of it', { x: 6, y: -4, turn: 1, zoom: 0.98 }],
  ])('is found for %s, with grain and a subject that goes its own way', (_, to) => {
    const shot = scene({
      grain: 4,
      camera: (t) => (t === 0 ? STILL : to),
      subject: (t) => ({ x: 150 + 60 * t, y: 90, radius: 26 }),
    });
    const { a, b, dx, dy } = estimateCameraMove(pictureOf(shot, 0), pictureOf(shot, 1));
    // Where the ground of a point lies in the second picture, by the scene's own formula.
    const turn = (to.turn * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn) * to.zoom, Math.sin(turn) * to.zoom];
    for (const [x, y] of [
      [0, 0],
      [90, 40],
      [-100, -60],
    ] as const) {
      const [px, py] = [x - to.x, y - to.y];
      expect(a * x - b * y + dx).toBeCloseTo(cos * px + sin * py, -0.3);
      expect(b * x + a * y + dy).toBeCloseTo(-sin * px + cos * py, -0.3);
    }
  });

  it('is none for the same picture, and for one without any texture', () => {
    const picture = pictureOf(scene({}), 0);
    expect(estimateCameraMove(picture, picture)).toMatchObject({
      dx: expect.closeTo(0, 2),
      dy: expect.closeTo(0, 2),
    });
    const flat = { width: 320, height: 180, data: new Uint8Array(320 * 180).fill(90) };
    expect(estimateCameraMove(flat, flat)).toEqual({ a: 1, b: 0, dx: 0, dy: 0 });
  });
});

describe('moves', () => {
  it('come after each other, and lead back', () => {
    const [first, second] = [
      { a: 1.01, b: 0.02, dx: 4, dy: -3 },
      { a: 0.98, b: -0.01, dx: -2, dy: 5 },
    ];
    const both = composeMoves(first, second);
    const back = composeMoves(both, isMovedBack(both));
    for (const key of ['a', 'b', 'dx', 'dy'] as const) expect(back[key]).toBeCloseTo(NO_MOVE[key], 9);
    expect(both.dx).toBeCloseTo(0.98 * 4 + 0.01 * -3 - 2, 9);
  });
});

describe('parts that move', () => {
  it.each([
    ['a still camera', standing, 0],
    ['a camera that shakes, and grain', shaking, 5],
    ['a pan, and grain', panning(30), 5],
  ])('are where the subject is, with %s', (_, camera, grain) => {
    // From 5 to 40 percent of the height.
    for (const radius of [4.5, 10, 36]) {
      const shot = scene({ camera, grain, subject: (t) => ({ x: 70 + 45 * t, y: 85 + 20 * t, radius }) });
      const [before, now, after] = [0.8, 1, 1.2].map((t) => pictureOf(shot, t)) as [never, never, never];
      const [part] = movingPartsOf(before, now, after);
      const box = {
        x: (115 - radius) / 320,
        y: (105 - radius) / 180,
        width: radius / 160,
        height: radius / 90,
      };
      expect(computeOverlap(part!.box, box)).toBeGreaterThan(0.4);
    }
  });

  it('are none where only the camera moves', () => {
    const shot = scene({ camera: shaking, grain: 4 });
    const [before, now, after] = [0.8, 1, 1.2].map((t) => pictureOf(shot, t)) as [never, never, never];
    const area = movingPartsOf(before, now, after).reduce((sum, { box }) => sum + box.width * box.height, 0);
    expect(area).toBeLessThan(0.01);
  });
});
