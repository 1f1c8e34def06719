import fc from 'fast-check';
import { canvasSchema, makeCanvas } from './canvas';
import {
  fitPixels,
  type Layout,
  layoutSchema,
  LAYOUTS,
  listPanes,
  PLAIN_LAYOUT,
  listFramingTracks,
} from './layout';
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
  oneAboveTwo: fc.record({ divider: share(0, 1) }),
});

describe('a canvas', () => {
  it('takes even sides from 16 to 4096 only', () => {
    const of = (width: number) =>
      canvasSchema.safeParse(makeCanvas('x/y', { width, height: 1080 }, FILM, 'c')).success;
    expect([15, 16, 17, 4096, 4098].map(of)).toEqual([false, true, false, true, false]);
  });

  it('has its panes on even pixels inside it, in every layout', () => {
    fc.assert(
      fc.property(evenSide, evenSide, layout, (width, height, chosen) => {
        expect(layoutSchema.safeParse(chosen).success).toBe(true);
        for (const { rect } of listPanes(chosen, { width, height })) {
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
        const panes = listPanes(chosen, { width: 64, height });
        let next = 0;
        for (const { rect } of panes) {
          expect(rect).toMatchObject({ x: 0, width: 64, y: next });
          next += rect.height;
        }
        expect(next).toBe(height);
        expect(new Set(panes.map((pane) => pane.track)).size).toBe(chosen.stacked?.panes);
      }),
      { numRuns: 1000 },
    );
  });

  it('shows two tracks where it has two subjects, else one', () => {
    const tracks = (kind: Layout['kind']) => listFramingTracks({ ...PLAIN_LAYOUT, kind }).length;
    expect(LAYOUTS.map(tracks)).toEqual([1, 2, 3, 2, 1, 1, 1]);
  });

  it('begins with what jobs show that store no settings: the same panes for good', () => {
    const size = { width: 1000, height: 2000 };
    const begun = LAYOUTS.map((kind) =>
      listPanes({ kind }, size).map(({ rect, blur, turn }) => ({ rect, blur, turn })),
    );
    const [width, x] = [1000, 0];
    const pane = (y: number, height: number, more = {}) => ({
      ...{ rect: { x, y, width, height } },
      blur: 0,
      turn: 0,
      ...more,
    });
    const half = (at: number) => pane(0, 0, { rect: { x: at, y: 1200, width: 500, height: 800 } });
    expect(begun).toEqual([
      [pane(0, 2000)],
      [pane(0, 1000), pane(1000, 1000)],
      [pane(0, 1200), half(0), half(500)],
      [pane(0, 2000), pane(0, 0, { rect: { x: 540, y: 1540, width: 420, height: 420 } })],
      [pane(0, 2000)],
      [pane(0, 2000, { blur: 60 }), pane(0, 2000)],
      [pane(0, 2000, { turn: 270 })],
    ]);
  });

  it('fits a picture of any ratio inside, touching two opposite edges', () => {
    fc.assert(
      fc.property(evenSide, evenSide, share(0.3, 3.5), share(0, 1), (width, height, aspect, place) => {
        const fitted = fitPixels({ x: 0, y: 0, width, height }, aspect, place);
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
    const { placement, height, rate, layout: plain } = makeCanvas(null, { width, height: 1350 }, FILM, 'c');
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
