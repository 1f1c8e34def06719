import type { Source } from './source';

/** Name of a stored still: its master, how it is shown, its rows and its frame. */
export function stillName(
  { fingerprint, rotation, flip, picture, colour, deinterlace }: Source,
  height: number,
  frame: number,
): string {
  const levels = colour.fullRange === null ? '' : colour.fullRange ? 'full' : 'limited';
  const light = `${colour.transfer ?? ''}${colour.primaries ?? ''}`;
  const repairs = `${colour.matrix ?? ''}${levels}${light}${deinterlace ? 'd' : ''}`;
  const look = `${height}-${picture.width}x${picture.height}-${rotation}${flip ? 'f' : ''}-${repairs}`;
  return `${fingerprint}-${look}-${frame}.jpg`;
}
