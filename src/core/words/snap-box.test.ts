import fc from 'fast-check';
import { toRelativeRect, dragBox, snapLines } from './snap-box';

const canvas = { width: 1080, height: 1920 };
const box = { x: 100, y: 300, width: 400, height: 200 };
const lines = snapLines(canvas, [{ x: 0, y: 1500, width: 1080, height: 420 }]);

describe('a box that is dragged', () => {
  it('snaps to the middle, the thirds, the edges and other rectangles', () => {
    // Its middle is at 300; 236 more bring it within 4 of the canvas's.
    expect(dragBox(box, 'move', { x: 236, y: 0 }, lines, 10)).toMatchObject({
      box: { x: 340 },
      across: 540,
    });
    expect(dragBox(box, 'move', { x: -96, y: 0 }, lines, 10)).toMatchObject({ box: { x: 0 }, across: 0 });
    expect(dragBox(box, 'move', { x: 0, y: 345 }, lines, 10)).toMatchObject({
      box: { y: 640 },
      down: 640,
    });
    expect(dragBox(box, 'move', { x: 0, y: 1005 }, lines, 10)).toMatchObject({
      box: { y: 1300 },
      down: 1500,
    });
    expect(dragBox(box, 'move', { x: 236, y: 0 }, lines, 0)).toMatchObject({
      box: { x: 336 },
      across: null,
    });
  });

  it('is sized by its corners, and never turned inside out', () => {
    expect(dragBox(box, 'bottom-right', { x: 45, y: 0 }, lines, 10).box).toEqual({ ...box, width: 440 });
    expect(dragBox(box, 'top-left', { x: 50, y: 21 }, lines, 0).box).toEqual({
      x: 150,
      y: 321,
      width: 350,
      height: 179,
    });
    fc.assert(
      fc.property(
        fc.constantFrom('top-left', 'top-right', 'bottom-left', 'bottom-right'),
        fc.integer({ min: -2000, max: 2000 }),
        fc.integer({ min: -2000, max: 2000 }),
        (grip, x, y) => {
          const { box: next } = dragBox(box, grip, { x, y }, lines, 12);
          expect(next.width).toBeGreaterThanOrEqual(24);
          expect(next.height).toBeGreaterThanOrEqual(24);
          if (grip.includes('left')) expect(next.x + next.width).toBeCloseTo(500, 6);
          else expect(next.x).toBe(100);
        },
      ),
    );
  });

  it('is kept as a share of its ground', () => {
    expect(toRelativeRect(box, { x: 0, y: 200, width: 1000, height: 400 })).toEqual({
      x: 0.1,
      y: 0.25,
      width: 0.4,
      height: 0.5,
    });
  });
});
