import { seeded } from '../../../tests/soak';
import { banding } from './banding';
import type { GreyPlane } from './likeness';

const [width, height] = [480, 270];

/** A picture by what each place holds, before it is rounded. */
const plane = (at: (x: number, y: number) => number): GreyPlane => ({
  ...{ width, height },
  data: Uint8Array.from({ length: width * height }, (_, i) =>
    Math.round(at(i % width, Math.floor(i / width))),
  ),
});

/** An evening sky: from dark to less dark, over the whole height. */
const sky = (_x: number, y: number) => 30 + (20 * y) / height;
const inSteps = (step: number) => plane((x, y) => Math.floor(sky(x, y) / step) * step);

describe('banding', () => {
  it('is none in one light, in noise, and at hard edges', () => {
    const next = seeded(1);
    expect(banding(plane(() => 60))).toBe(0);
    expect(banding(plane(() => 40 + 60 * next()))).toBeLessThan(0.05);
    expect(banding(plane((x) => (x < width / 2 ? 40 : 200)))).toBe(0);
  });

  it('is seen in a sky that an encoder left in steps, and hardly in one that is dithered', () => {
    const next = seeded(2);
    const dithered = plane((x, y) => Math.floor(sky(x, y) + next()));
    expect(banding(inSteps(1))).toBeGreaterThan(3);
    expect(banding(dithered)).toBeLessThan(banding(inSteps(1)) / 4);
  });

  it('is worse in the dark than in the light, where the same step is a smaller share', () => {
    const light = plane((x, y) => Math.floor(sky(x, y)) + 150);
    expect(banding(light)).toBeLessThan(banding(inSteps(1)));
  });

  it('is not looked for in what is too small', () => {
    expect(() => banding({ data: new Uint8Array(100), width: 10, height: 10 })).toThrow(RangeError);
  });
});
