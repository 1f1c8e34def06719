import type { GreyPlane } from '../picture/likeness';

/** Side of a thumb, in samples: so small that every frame of a clip can be held. */
const THUMB_SIDE = 8;
/** Samples of a thumb. */
export const THUMB = THUMB_SIDE ** 2;

/** A frame made as small as can be: the mean of each of 8×8 fields, whatever its shape. */
export function toThumb({ data, width, height }: GreyPlane): Uint8Array {
  const thumb = new Uint8Array(THUMB);
  const edge = (n: number, length: number) => Math.floor((n * length) / THUMB_SIDE);
  for (let row = 0; row < THUMB_SIDE; row++) {
    for (let column = 0; column < THUMB_SIDE; column++) {
      const [left, right] = [edge(column, width), edge(column + 1, width)];
      const [top, bottom] = [edge(row, height), edge(row + 1, height)];
      let sum = 0;
      for (let y = top; y < bottom; y++) {
        for (let x = left; x < right; x++) sum += data[y * width + x] as number;
      }
      thumb[row * THUMB_SIDE + column] = Math.round(sum / ((right - left) * (bottom - top)));
    }
  }
  return thumb;
}

/** How a picture was turned: quarter turns clockwise, then perhaps mirrored from left to right. */
export interface Turn {
  quarters: 0 | 1 | 2 | 3;
  mirrored: boolean;
}

export const TURNS: readonly Turn[] = ([0, 1, 2, 3] as const).flatMap((quarters) => [
  { quarters, mirrored: false },
  { quarters, mirrored: true },
]);

/** Thumbs one after another, each turned. */
export function turnThumbs(thumbs: Uint8Array, { quarters, mirrored }: Turn): Uint8Array {
  const last = THUMB_SIDE - 1;
  const order = Array.from({ length: THUMB }, (_, n) => {
    let [x, y] = [n % THUMB_SIDE, Math.floor(n / THUMB_SIDE)];
    if (mirrored) x = last - x;
    // Where a sample of the turned picture came from.
    for (let turn = 0; turn < quarters; turn++) [x, y] = [y, last - x];
    return y * THUMB_SIDE + x;
  });
  const turned = new Uint8Array(thumbs.length);
  for (let at = 0; at < thumbs.length; at += THUMB) {
    for (let n = 0; n < THUMB; n++) turned[at + n] = thumbs[at + (order[n] as number)] as number;
  }
  return turned;
}
