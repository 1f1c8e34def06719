import { readFileSync } from 'node:fs';
import { canvasMark } from './dyes';
import { declarations, PALETTES } from './palettes';

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

it('computes the ends of the scale', () => {
  expect(contrast('#000000', '#FFFFFF')).toBeCloseTo(21, 6);
});

describe.each(Object.entries(PALETTES))('the %s theme', (_, colours) => {
  // WCAG 2.2 success criterion 1.4.3: 4.5 for text.
  it.each(['ink', 'softInk', 'woad', 'madder', 'verdigris', 'weld'] as const)(
    '%s is readable on every ground',
    (name) => {
      for (const ground of [colours.paper, colours.sheet, colours.woadWash, colours.madderWash])
        expect(contrast(colours[name], ground)).toBeGreaterThanOrEqual(4.5);
    },
  );

  it('words on a dye are readable', () => {
    for (const dye of [colours.woad, colours.ink, colours.weld])
      expect(contrast(colours.onDye, dye)).toBeGreaterThanOrEqual(4.5);
  });

  // WCAG 2.2 success criterion 1.4.11: 3 for controls and for what tells a state.
  it('edges of controls stand out', () => {
    for (const ground of [colours.paper, colours.sheet])
      expect(contrast(colours.edge, ground)).toBeGreaterThanOrEqual(3);
  });

  it('the dye of each canvas stands out', () => {
    const dyes = Object.entries(colours).flatMap(([name, value]) => (/^canvas\d$/.test(name) ? [value] : []));
    expect(new Set(dyes).size).toBe(6);
    for (const dye of dyes) expect(contrast(dye, colours.paper)).toBeGreaterThanOrEqual(4.5);
  });
});

it('each canvas has a dye and a stitch of its own', () => {
  const marks = [0, 1, 2, 3, 4, 5].map(canvasMark);
  expect(new Set(marks.map((mark) => mark.dye)).size).toBe(marks.length);
  expect(new Set(marks.map((mark) => mark.stitch)).size).toBe(marks.length);
});

it('the page has the colours of both themes, by the device and by choice', () => {
  const css = readFileSync('public/page.css', 'utf8');
  const [, block = ''] = /:root \{([^}]*)\}/.exec(css) ?? [];
  const lines = block.split('\n').map((line) => line.trim());
  expect(lines.filter((line) => line.startsWith('--'))).toEqual(declarations());
  expect(lines).toContain('color-scheme: light dark;');
  for (const theme of ['light', 'dark'])
    expect(css).toMatch(new RegExp(`:root\\[data-theme='${theme}'\\] \\{\\s+color-scheme: ${theme};`));
});
