import { createName } from '../figures/fresh-name';
import type { TextBlock } from './text-block';

export const freshBlockId = (blocks: readonly TextBlock[]): string =>
  createName('block', new Set(blocks.map((block) => block.id)));

/** Blocks with one of them changed. */
export const withBlock = (
  blocks: readonly TextBlock[],
  id: string,
  change: (block: TextBlock) => TextBlock,
): TextBlock[] => blocks.map((block) => (block.id === id ? change(block) : block));

/** A copy of a block lies this far beside it, a share of its ground. */
const BESIDE = 0.04;

/** Blocks with a copy of one over all others, a little beside it. */
export function copyBlock(
  blocks: readonly TextBlock[],
  block: TextBlock,
): { blocks: TextBlock[]; id: string } {
  const id = freshBlockId(blocks);
  const box = { ...block.box, x: block.box.x + BESIDE, y: block.box.y + BESIDE };
  return { blocks: [...blocks, { ...block, id, box }], id };
}

/** Blocks with one moved by places in the drawing order. */
export function moveBlock(blocks: readonly TextBlock[], id: string, by: number): TextBlock[] {
  const from = blocks.findIndex((block) => block.id === id);
  const to = Math.min(blocks.length - 1, Math.max(0, from + by));
  const block = blocks[from];
  if (!block) return [...blocks];
  const rest = blocks.filter((other) => other !== block);
  return [...rest.slice(0, to), block, ...rest.slice(to)];
}
