import fc from 'fast-check';
import { canvasSchema, canvasOf } from './canvas';
import { fittedPixels, type Layout, layoutSchema, LAYOUTS, panesOf, PLAIN_LAYOUT, tracksOf } from './layout';
import { withNamed } from '../figures/named-file';
import { type Preset, presetsFile } from './preset';

const evenSide = fc.integer({ min: 8, max: 2048 }).map((half) => half * 2);
const FILM = { num: 24000, den: 1001 };
const share = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const layout = fc.record<Layout>({
  kind: fc.constantFrom(...LAYOUTS),
  stacked: fc.record({
    panes: fc.constantFrom<(2 | 3)[]>(2, 3),
    dividers: fc.tuple(share(0, 1), share(0, 1)),
  }),
  inset: fc.record({
    corner: fc.constantFrom('top-left', 'top-right', 'bottom-left', 'bottom-right'),
    width: share(0.15, 0.9),
    margin: share(0, 0.2),
    aspect: share(0.4, 2.5),
    radius: share(0, 0.5),
  }),
  banded: fc.record({ place: share(0, 1), colour: fc.constant('#1F2B33') }),
  backdrop: fc.record({ blur: share(0.01, 0.2) }),
  turned: fc.record({ clockwise: fc.boolean() }),
});

describe('a canvas', () => {
  it('takes even sides from 16 to 4096 only', () => {
    const of = (width: number) =>
      canvasSchema.safeParse(canvasOf('x/y', { width, height: 1080 }, FILM, 'c')).success;
    expect([15, 16, 17, 4096, 4098].map(of)).toEqual([false, true, false, true, false]);
  });

  it('has its panes on even pixels inside it, in every layout', () => {
    fc.assert(
      fc.property(evenSide, evenSide, layout, (width, height, chosen) => {
        expect(layoutSchema.safeParse(chosen).success).toBe(true);
        for (const { rect } of panesOf(chosen, { width, height })) {
          for (const edge of [rect.x, rect.y, rect.width, rect.height]) expect(edge % 2 === 0).toBe(true);
          expect(Math.min(rect.x, rect.y, rect.width - 2, rect.height - 2)).toBeGreaterThanOrEqual(0);
          expect(rect.x + rect.width).toBeLessThanOrEqual(width);
          expect(rect.y + rect.height).toBeLessThanOrEqual(height);
        }
      }),
      { numRuns: 1000 },
    );
  });

  it('has every row once in stacked panes, of every even height', () => {
    const stacked = layout.map((entry): Layout => ({ ...entry, kind: 'stacked' }));
    fc.assert(
      fc.property(evenSide, stacked, (height, chosen) => {
        const panes = panesOf(chosen, { width: 64, height });
        let next = 0;
        for (const { rect } of panes) {
          expect(rect).toMatchObject({ x: 0, width: 64, y: next });
          next += rect.height;
        }
        expect(next).toBe(height);
        expect(new Set(panes.map((pane) => pane.track)).size).toBe(chosen.stacked.panes);
      }),
      { numRuns: 1000 },
    );
  });

  it('shows two tracks where it has two subjects, else one', () => {
    const tracks = (kind: Layout['kind']) => tracksOf({ ...PLAIN_LAYOUT, kind }).length;
    expect(LAYOUTS.map(tracks)).toEqual([1, 2, 2, 1, 1, 1]);
  });

  it('fits a picture of any ratio inside, touching two opposite edges', () => {
    fc.assert(
      fc.property(evenSide, evenSide, share(0.3, 3.5), share(0, 1), (width, height, aspect, place) => {
        const fitted = fittedPixels({ x: 0, y: 0, width, height }, aspect, place);
        for (const edge of [fitted.x, fitted.y, fitted.width, fitted.height])
          expect(edge % 2 === 0).toBe(true);
        expect(fitted.width === width || fitted.height === height).toBe(true);
        expect(fitted.x).toBeGreaterThanOrEqual(0);
        expect(fitted.y).toBeGreaterThanOrEqual(0);
        expect(fitted.x + fitted.width).toBeLessThanOrEqual(width);
        expect(fitted.y + fitted.height).toBeLessThanOrEqual(height);
      }),
    );
  });
});

describe('presets', () => {
  const preset = (name: string, width = 1080): Preset => {
    const { placement, height, rate, layout: plain } = canvasOf(null, { width, height: 1350 }, FILM, 'c');
    return { name, placement, width, height, rate, layout: plain };
  };

  it('come back from their file as they went, and one of the same name is replaced', () => {
    const both = withNamed([preset('Tall'), preset('Grid')], [preset('Tall', 720)]);
    expect(both.map((preset) => [preset.name, preset.width])).toEqual([
      ['Grid', 1080],
      ['Tall', 720],
    ]);
    expect(presetsFile.read(presetsFile.write(both))).toEqual({ all: both });
  });

  it('say what is wrong with a file, whatever is in it', () => {
    expect(presetsFile.read('{')).toHaveProperty('problem');
    expect(presetsFile.read(presetsFile.write([preset('Odd', 1081)]))).toMatchObject({
      problem: expect.stringContaining('presets.0.width'),
    });
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.json()), (text) => {
        const read = presetsFile.read(text);
        expect('problem' in read || 'presets' in read).toBe(true);
      }),
    );
  });
});
