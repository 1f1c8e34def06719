/**
 * Minimum contrast of text by WCAG 2.2, success criterion 1.4.3: large text is 24 pixels high, or 18.66 and
 * bold.
 */
const ENOUGH = { plain: 4.5, large: 3 } as const;
const LARGE = { plain: 24, bold: 18.66 } as const;
const BOLD = 700;

/** A phone shows a clip about so many CSS pixels wide (common practice, no source). */
const PHONE = 390;

/** Relative luminance of an sRGB colour (WCAG 2.2, "relative luminance"). @param channels red, green and blue, 0…255. */
export function relativeLuminance([red, green, blue]: readonly [number, number, number]): number {
  const linear = (channel: number) => {
    const share = channel / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  };
  return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
}

/** Relative luminance of `#RRGGBB`. */
export const computeLuminance = (colour: string): number =>
  relativeLuminance(
    [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)) as [number, number, number],
  );

/** How much two luminances stand out from each other, 1…21 (WCAG 2.2, "contrast ratio"). */
export const contrastRatio = (a: number, b: number): number =>
  (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** The least contrast that letters need, by how large a phone shows them. @param size and `width` in canvas pixels. */
export function hasEnoughContrast(size: number, weight: number, width: number): number {
  const shown = (size * PHONE) / width;
  return shown >= (weight >= BOLD ? LARGE.bold : LARGE.plain) ? ENOUGH.large : ENOUGH.plain;
}
