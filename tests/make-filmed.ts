import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from './encode-film';

const folder = mkdtempSync(path.join(tmpdir(), 'filmed-'));

/**
 * A film of 1920×1080 as a camera would have it, from the demo film: it moves, and it is grainy.
 * @param filter what is done to it, after the grain.
 */
export function filmed(name: string, filter: string, { from = 2, seconds = 2.5 } = {}): string {
  const file = path.join(folder, `${name.replaceAll(' ', '-')}.mp4`);
  const graph = `[0:v]fps=24,scale=1920:1080,noise=alls=8:allf=t,${filter},format=yuv420p[v]`;
  return encodeFilm(file, [
    ...['-ss', String(from), '-t', String(seconds), '-i', 'public/demo/kite-day.mp4'],
    ...['-filter_complex', graph, '-map', '[v]', '-map', '0:a?'],
    ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '18', '-g', '24', '-c:a', 'aac'],
  ]);
}
