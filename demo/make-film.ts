/**
 * Makes the demo master again: `npx tsx demo/make-film.ts [output.mp4]`. Draws every frame in headless Chromium,
 * makes the sound, and encodes both with ffmpeg (Debian's package).
 */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build } from 'esbuild';
import { launchBrowser } from '../scripts/browser.mjs';
import { HEIGHT, WIDTH } from './film/paint';
import { SHOTS } from './film/shots';
import { filmSound, wavFile } from './sound';

const output = process.argv[2] ?? path.join(import.meta.dirname, 'kite-day.mp4');

async function main(): Promise<void> {
  const work = mkdtempSync(path.join(tmpdir(), 'film-'));
  const frames = SHOTS.reduce((sum, shot) => sum + shot.frames, 0);
  const wav = path.join(work, 'sound.wav');
  writeFileSync(wav, wavFile(filmSound((frames * 1001) / 24000)));
  const encoder = spawn(
    'ffmpeg',
    [
      '-y', '-v', 'error',
      '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${WIDTH}x${HEIGHT}`, '-r', '24000/1001', '-i', '-',
      '-i', wav,
      '-vf', 'scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int,format=yuv420p',
      '-c:v', 'libx264', '-preset', 'veryslow', '-crf', '25', '-profile:v', 'high', '-g', '120', '-threads', '2',
      '-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv',
      '-c:a', 'aac', '-b:a', '96k', '-movflags', '+faststart', '-fflags', '+bitexact', '-shortest',
      output,
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  const script = await build({
    entryPoints: [path.join(import.meta.dirname, 'film/page.ts')],
    bundle: true,
    format: 'esm',
    write: false,
  });
  let finished = (): void => undefined;
  const done = new Promise<void>((resolve) => (finished = resolve));
  let count = 0;
  const server = http.createServer((request, response) => {
    if (request.url === '/film.js') {
      response.setHeader('content-type', 'text/javascript').end(script.outputFiles[0]?.text);
    } else if (request.url === '/frame') {
      request.pipe(encoder.stdin, { end: false });
      request.on('end', () => response.end());
      if (++count % 100 === 0) console.log(`${count} of ${frames} frames`);
    } else {
      response.setHeader('content-type', 'text/html').end('<script type="module" src="/film.js"></script>');
      if (request.url === '/end') finished();
    }
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const browser = await launchBrowser();
  const page = await browser.newPage();
  await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
  await done;
  encoder.stdin.end();
  await once(encoder, 'close');
  await browser.close();
  server.close();
  rmSync(work, { recursive: true });
  console.log(output);
}

void main();
