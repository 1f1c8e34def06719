import { execFileSync } from 'node:child_process';

/** Rows of a reduced picture; the sea lies below this share of them, and is of much the same colour. */
const ROWS = 270;
const SKY = 0.68;
/** The two cloths of the blue kite, and how far off a pixel may be, in levels of each of red, green and blue. */
const CLOTHS = [
  [0x3f, 0x7f, 0xb2],
  [0x27, 0x5b, 0x88],
] as const;
const NEAR = 20;

/**
 * How much blue kite each frame shows, in pixels of a picture of 270 rows: what is cut off is missing.
 * Judged from outside: ffmpeg decodes and reduces.
 */
export function blueKite(file: string, from: number, frames: number): number[] {
  const filter = `trim=start_frame=${from}:end_frame=${from + frames},setpts=PTS-STARTPTS,scale=-2:${ROWS}:flags=area`;
  const args = ['-v', 'error', '-i', file, '-vf', filter, '-an', '-fps_mode', 'passthrough'];
  const raw = execFileSync('ffmpeg', [...args, '-f', 'rawvideo', '-pix_fmt', 'rgb24', '-'], {
    maxBuffer: 1 << 30,
  });
  const size = raw.length / frames;
  const width = size / 3 / ROWS;
  return Array.from({ length: frames }, (_, n) => {
    let count = 0;
    for (let at = n * size; at < n * size + Math.floor(SKY * ROWS) * width * 3; at += 3) {
      const near = CLOTHS.some((cloth) =>
        cloth.every((level, k) => Math.abs((raw[at + k] as number) - level) <= NEAR),
      );
      if (near) count += 1;
    }
    return count;
  });
}
