import fc from 'fast-check';
import { canvasSchema, canvasOf, fittedPixels, panePixels } from './canvas';

const evenSide = fc.integer({ min: 8, max: 1080 }).map((half) => half * 2);
const FILM = { num: 24000, den: 1001 };

describe('a canvas', () => {
  it('takes even sides from 16 to 4096 only', () => {
    const of = (width: number) =>
      canvasSchema.safeParse(canvasOf('x/y', { width, height: 1080 }, FILM, 'c')).success;
    expect([15, 16, 17, 4096, 4098].map(of)).toEqual([false, true, false, true, false]);
  });

  it('has its one pane everywhere, on even pixels', () => {
    fc.assert(
      fc.property(evenSide, evenSide, (width, height) => {
        const canvas = canvasOf('x/y', { width, height }, FILM, 'c');
        expect(panePixels(canvas.layout.panes[0]!, canvas)).toEqual({ x: 0, y: 0, width, height });
      }),
    );
  });

  it('fits a picture of any ratio inside, touching two opposite edges', () => {
    fc.assert(
      fc.property(
        evenSide,
        evenSide,
        fc.double({ min: 0.3, max: 3.5, noNaN: true }),
        (width, height, aspect) => {
          const fitted = fittedPixels({ x: 0, y: 0, width, height }, aspect);
          for (const edge of [fitted.x, fitted.y, fitted.width, fitted.height])
            expect(edge % 2 === 0).toBe(true);
          expect(fitted.width === width || fitted.height === height).toBe(true);
          expect(fitted.x).toBeGreaterThanOrEqual(0);
          expect(fitted.y).toBeGreaterThanOrEqual(0);
          expect(fitted.x + fitted.width).toBeLessThanOrEqual(width);
          expect(fitted.y + fitted.height).toBeLessThanOrEqual(height);
        },
      ),
    );
  });
});
