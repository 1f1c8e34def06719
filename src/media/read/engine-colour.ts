/** A flat picture of these codes, in limited-range BT.709. */
const [LUMA, CB, CR] = [100, 200, 128];
const SIDE = 16;
/** Blue of a code of luma and of Cb (ITU-R BT.709-6, items 3.2 to 3.4 and 4.6, in bytes of 255). */
const BLUE_OF_LUMA = 255 / 219;
/** Where some engines hold what a code of Cb adds to blue; BT.709 has 2.112, BT.601 2.017. */
const HELD_AT = 2;
/** Half way from there to what is right. */
const BETWEEN = 2.056;

let most: number | null = null;

/**
 * Measures how much a code of Cb adds to blue at most on this engine's way from YCbCr to red, green and blue,
 * by drawing a frame: 2, or Infinity where nothing is clipped.
 */
export function measureMaxBlueOfCb(): number {
  return (most ??= tryOut());
}

function tryOut(): number {
  const luma = SIDE * SIDE;
  const bytes = new Uint8Array(luma * 1.5)
    .fill(LUMA)
    .fill(CB, luma, luma * 1.25)
    .fill(CR, luma * 1.25);
  const colorSpace = { primaries: 'bt709', transfer: 'bt709', matrix: 'bt709', fullRange: false } as const;
  const size = { codedWidth: SIDE, codedHeight: SIDE };
  const frame = new VideoFrame(bytes, { format: 'I420', ...size, timestamp: 0, colorSpace });
  try {
    const ink = new OffscreenCanvas(SIDE, SIDE).getContext('2d');
    ink?.drawImage(frame, 0, 0);
    const blue = ink?.getImageData(SIDE / 2, SIDE / 2, 1, 1).data[2] ?? 0;
    return (blue - BLUE_OF_LUMA * (LUMA - 16)) / (CB - 128) < BETWEEN ? HELD_AT : Infinity;
  } finally {
    frame.close();
  }
}
