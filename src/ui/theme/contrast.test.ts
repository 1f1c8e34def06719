import { canvasMark } from './dyes';
import { colours } from './tokens';

/** Relative luminance of a colour `#rrggbb` (WCAG 2.2, "relative luminance"). */
function luminance(colour: string): number {
  const [red, green, blue] = [1, 3, 5].map((digit) => {
    const value = parseInt(colour.slice(digit, digit + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** Contrast ratio of two colours (WCAG 2.2, "contrast ratio"). */
function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
  return (high + 0.05) / (low + 0.05);
}

const GROUNDS = [colours.paper, colours.sheet, colours.woadWash, colours.madderWash];

it('computes the ends of the scale', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
});

// WCAG 2.2 success criterion 1.4.3: 4.5 for text.
it.each(['ink', 'softInk', 'woad', 'madder', 'verdigris', 'weld'] as const)(
  '%s is readable on every ground',
  (name) => {
    for (const ground of GROUNDS) expect(contrast(colours[name], ground)).toBeGreaterThanOrEqual(4.5);
  },
);

it('words on a dye are readable', () => {
  for (const dye of [colours.woad, colours.ink])
    expect(contrast(colours.onDye, dye)).toBeGreaterThanOrEqual(4.5);
});

// WCAG 2.2 success criterion 1.4.11: 3 for controls and for what tells a state.
it('edges of controls stand out', () => {
  for (const ground of [colours.paper, colours.sheet])
    expect(contrast(colours.edge, ground)).toBeGreaterThanOrEqual(3);
});

it('each canvas has a dye and a stitch of its own, and the dye stands out', () => {
  const marks = [0, 1, 2, 3, 4, 5].map(canvasMark);
  expect(new Set(marks.map((mark) => mark.dye)).size).toBe(marks.length);
  expect(new Set(marks.map((mark) => mark.stitch)).size).toBe(marks.length);
  for (const mark of marks) expect(contrast(mark.dye, colours.paper)).toBeGreaterThanOrEqual(4.5);
});
