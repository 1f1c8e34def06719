import { spawnSync } from 'node:child_process';

/** Structural similarity of two files: the mean, and the worst frame's. */
export interface Similarity {
  mean: number;
  worst: number;
  frames: number;
}

/**
 * SSIM by ffmpeg's filter (Wang et al., "Image quality assessment: from error visibility to structural similarity",
 * IEEE TIP 13, 2004), frame against frame in order.
 *
 * @param reference filters that make the wanted frames from the second file. @param plane luma, or all of them.
 */
export function similarity(
  file: string,
  master: string,
  reference: string,
  plane: 'All' | 'Y' = 'All',
): Similarity {
  const inOrder = 'setpts=N/24/TB';
  const graph = `[0:v]${inOrder}[a];[1:v]${reference},${inOrder}[b];[a][b]ssim=stats_file=-`;
  const args = ['-v', 'error', '-i', file, '-i', master, '-lavfi', graph, '-f', 'null', '-'];
  const { stdout, stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  const values = [...stdout.matchAll(new RegExp(`\\b${plane}:([\\d.]+)`, 'g'))].map((match) =>
    Number(match[1]),
  );
  if (values.length === 0) throw new Error(`no frames to compare: ${stderr}`);
  return {
    mean: values.reduce((sum, value) => sum + value, 0) / values.length,
    worst: Math.min(...values),
    frames: values.length,
  };
}
