import { spawnSync } from 'node:child_process';

/**
 * Peak signal to noise ratio of two files by ffmpeg's filter, frame against frame in order, in decibels; infinite for
 * the same pictures.
 * @param plane which plane, or all of them. @param reference filters that make the wanted frames from the second file.
 */
export function psnr(
  file: string,
  other: string,
  plane: 'y' | 'average' = 'average',
  reference = 'null',
): number {
  const inOrder = 'setpts=N/24/TB';
  const graph = `[0:v]${inOrder}[a];[1:v]${reference},${inOrder}[b];[a][b]psnr`;
  const args = ['-hide_banner', '-i', file, '-i', other, '-lavfi', graph, '-f', 'null', '-'];
  const { stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  const found = new RegExp(`PSNR.* ${plane}:(inf|[\\d.]+)`).exec(stderr)?.[1];
  if (found === undefined) throw new Error(`no frames to compare: ${stderr}`);
  return found === 'inf' ? Infinity : Number(found);
}
