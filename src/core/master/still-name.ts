import type { Source } from './source';

/** Name of a stored still: its master, how it is shown, its rows and its frame. */
export function stillName(
  { fingerprint, rotation, flip, picture }: Source,
  height: number,
  frame: number,
): string {
  const look = `${height}-${picture.width}x${picture.height}-${rotation}${flip ? 'f' : ''}`;
  return `${fingerprint}-${look}-${frame}.jpg`;
}
