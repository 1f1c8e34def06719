/** Bounds of a typed number; none where a bound is not given. */
export interface NumberLimits {
  least?: number;
  most?: number;
}

/**
 * A figure as people type it: with a comma or a point, a minus sign or a hyphen, and perhaps a sign or unit behind it.
 * @returns the number, or what is wrong with the text and what to type instead.
 */
export function readNumber(text: string, { least, most }: NumberLimits): number | { problem: string } {
  const [, figure] = /^\s*([-−+]?\d*[.,]?\d+|[-−+]?\d+[.,])\s*[^\d.,]*$/.exec(text) ?? [];
  const wanted = rangeWords(least, most);
  if (figure === undefined) return { problem: `“${text.trim()}” is not a number. Type ${wanted}.` };
  const value = Number(figure.replace(',', '.').replace('−', '-'));
  if (least !== undefined && value < least) {
    return { problem: `${figure} is less than ${least}. Type ${wanted}.` };
  }
  if (most !== undefined && value > most)
    return { problem: `${figure} is more than ${most}. Type ${wanted}.` };
  return value;
}

function rangeWords(least?: number, most?: number): string {
  if (least !== undefined && most !== undefined) return `a number from ${least} to ${most}`;
  return least === undefined ? 'a number' : `a number of ${least} or more`;
}
