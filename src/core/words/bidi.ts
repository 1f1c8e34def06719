import bidiFactory from 'bidi-js';

const bidi = bidiFactory();

/** Of each UTF-16 unit of a text the level of its direction: even runs to the right, odd to the left (UAX #9). */
export const computeBidiLevels = (text: string): Uint8Array => bidi.getEmbeddingLevels(text, 'auto').levels;

/** Runs in the order in which they are read, in the order in which they stand from left to right (UAX #9, L2). */
export function toVisualOrder<Run extends { level: number }>(runs: readonly Run[]): Run[] {
  const order = [...runs];
  const levels = order.map(({ level }) => level);
  const lowestOdd = Math.min(...levels.filter((level) => level % 2 === 1));
  for (let level = Math.max(0, ...levels); level >= lowestOdd; level--) {
    for (let from = 0; from < order.length; from++) {
      let to = from;
      while (to < order.length && (order[to] as Run).level >= level) to++;
      if (to > from) order.splice(from, to - from, ...order.slice(from, to).reverse());
      from = Math.max(from, to);
    }
  }
  return order;
}
