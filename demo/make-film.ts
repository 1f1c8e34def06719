/**
 * Makes the demo master again: `npx tsx demo/make-film.ts [output.mp4]`. Draws every frame in headless Chromium,
 * makes the sound, and encodes both with ffmpeg (Debian's package).
 */
import { execFileSync } from 'node:child_process';
import { once } from 'node:events';
import { createWriteStream, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build } from 'esbuild';
import { launchBrowser } from '../scripts/browser.mjs';
import { SHOTS } from './film/shots';
import { filmSound, wavFile } from './sound';

const output = process.argv[2] ?? path.join(import.meta.dirname, '../public/demo/kite-day.mp4');

/** Draws the film in a browser and keeps the barely compressed result in `file`. */
async function draw(file: string): Promise<void> {
  const script = await build({
    entryPoints: [path.join(import.meta.dirname, 'film/page.ts')],
    bundle: true,
    format: 'esm',
    write: false,
  });
  const server = http.createServer((request, response) => {
    if (request.url === '/film.js') {
      response.setHeader('content-type', 'text/javascript').end(script.outputFiles[0]?.text);
    } else if (request.url === '/film') {
      request.pipe(createWriteStream(file)).on('finish', () => {
        response.end();
        server.emit('film');
      });
    } else {
      response.setHeader('content-type', 'text/html').end('<script type="module" src="/film.js"></script>');
    }
  });
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const browser = await launchBrowser();
  const page = await browser.newPage();
  page.on('console', (message) => console.log(message.text()));
  page.on('pageerror', (error) => console.error(error));
  const film = once(server, 'film');
  await page.goto(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`);
  await film;
  await browser.close();
  server.close();
}

async function main(): Promise<void> {
  const work = mkdtempSync(path.join(tmpdir(), 'film-'));
  const frames = SHOTS.reduce((sum, shot) => sum + shot.frames, 0);
  const wav = path.join(work, 'sound.wav');
  const drawn = path.join(work, 'drawn.mp4');
  writeFileSync(wav, wavFile(filmSound((frames * 1001) / 24000)));
  await draw(drawn);
  execFileSync(
    'ffmpeg',
    [
      '-y',
      '-v',
      'error',
      '-i',
      drawn,
      '-i',
      wav,
      '-map',
      '0:v',
      '-map',
      '1:a',
      '-c:v',
      'libx264',
      '-preset',
      'slow',
      '-crf',
      '25',
      '-profile:v',
      'high',
      '-g',
      '120',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-colorspace',
      'bt709',
      '-color_range',
      'tv',
      '-video_track_timescale',
      '24000',
      '-c:a',
      'aac',
      '-b:a',
      '96k',
      '-movflags',
      '+faststart',
      '-fflags',
      '+bitexact',
      output,
    ],
    { stdio: 'inherit' },
  );
  rmSync(work, { recursive: true });
  console.log(output);
}

void main();
