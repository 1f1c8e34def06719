import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { existsSync, mkdirSync } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import type { Express } from 'express';
import {
  type Conversion,
  CONVERT_ABILITY,
  CONVERT_UPLOADS,
  conversionPath,
  convertedPath,
} from '../../src/core/convert/protocol';

/** Files that nobody fetched are deleted after a day, in milliseconds. */
const LIFE = 24 * 3600 * 1000;
/** Largest file that is taken, in bytes. */
const MOST_BYTES = 64e9;
/** What ffmpeg says last is where the reason stands. */
const REASON_LENGTH = 300;

interface Running {
  conversion: Conversion;
  child: ChildProcess | null;
}

const ffmpegThere = (): boolean => spawnSync('ffmpeg', ['-version']).status === 0;

/**
 * A copy in H.264 that keeps size, rate and timing: every frame at its own time, near lossless, tall enough a rate
 * that editing it costs nothing that is seen; sound as AAC.
 */
const argsFor = (from: string, to: string): string[] => [
  ...['-y', '-v', 'error', '-nostdin', '-i', from, '-map', '0:v:0', '-map', '0:a:0?'],
  ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '12', '-pix_fmt', 'yuv420p', '-g', '48'],
  ...['-fps_mode', 'passthrough', '-enc_time_base', '-1', '-c:a', 'aac', '-b:a', '256k'],
  ...['-movflags', '+faststart', '-f', 'mp4', '-progress', 'pipe:1', to],
];

/** Seconds that a file lasts, or null where it does not say. */
function secondsOf(file: string): number | null {
  const args = ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', file];
  const seconds = Number(spawnSync('ffprobe', args, { encoding: 'utf8' }).stdout);
  return Number.isFinite(seconds) && seconds > 0 ? seconds : null;
}

/** Adds the conversion of files that a browser cannot decode: upload by tus, progress, the result, and a way to stop. */
export function addConversion(app: Express, dataFolder: string): void {
  const folder = path.join(dataFolder, 'convert');
  mkdirSync(folder, { recursive: true });
  const running = new Map<string, Running>();
  const sourceOf = (id: string) => path.join(folder, id);
  const resultOf = (id: string) => path.join(folder, `${id}.mp4`);
  const tus = new Server({
    path: CONVERT_UPLOADS,
    datastore: new FileStore({ directory: folder, expirationPeriodInMilliseconds: LIFE }),
    maxSize: MOST_BYTES,
    relativeLocation: true,
  });

  function begin(id: string): Running {
    const one: Running = {
      conversion: { state: 'running', doneSeconds: 0, totalSeconds: secondsOf(sourceOf(id)) },
      child: null,
    };
    running.set(id, one);
    const child = spawn('ffmpeg', argsFor(sourceOf(id), resultOf(id)), { stdio: ['ignore', 'pipe', 'pipe'] });
    one.child = child;
    let said = '';
    child.stderr.on('data', (text: Buffer) => (said = (said + text.toString()).slice(-REASON_LENGTH)));
    child.stdout.on('data', (text: Buffer) => {
      const micro = [...text.toString().matchAll(/out_time_us=(\d+)/g)].pop()?.[1];
      if (micro && one.conversion.state === 'running') {
        one.conversion = { ...one.conversion, doneSeconds: Number(micro) / 1e6 };
      }
    });
    child.on('error', (error) => (one.conversion = { state: 'failed', reason: error.message }));
    child.on('close', (code) => void end(id, one, code, said));
    return one;
  }

  async function end(id: string, one: Running, code: number | null, said: string): Promise<void> {
    one.child = null;
    await rm(sourceOf(id), { force: true });
    const bytes =
      code === 0
        ? await stat(resultOf(id)).then(
            (file) => file.size,
            () => 0,
          )
        : 0;
    if (bytes > 0) one.conversion = { state: 'done', bytes };
    else {
      await rm(resultOf(id), { force: true });
      const last = said.trim().split('\n').pop() ?? '';
      one.conversion = {
        state: 'failed',
        reason: last.replace(/\/\S+\//g, '') || 'ffmpeg could not read it',
      };
    }
  }

  app.get(CONVERT_ABILITY, (_request, response) => {
    response.json({ ffmpeg: ffmpegThere() });
  });
  app.all([CONVERT_UPLOADS, `${CONVERT_UPLOADS}/:id`], (request, response) => tus.handle(request, response));
  app.post(conversionPath(':id'), (request, response) => {
    const id = String(request.params.id);
    if (!/^[A-Za-z0-9_-]+$/.test(id) || !existsSync(sourceOf(id))) {
      response.status(404).json({ error: 'the upload is not here' });
      return;
    }
    response.json((running.get(id) ?? begin(id)).conversion);
  });
  app.get(conversionPath(':id'), (request, response) => {
    const one = running.get(String(request.params.id));
    if (one) response.json(one.conversion);
    else response.status(404).json({ error: 'no such conversion' });
  });
  app.get(convertedPath(':id'), (request, response, next) => {
    const one = running.get(String(request.params.id));
    if (one?.conversion.state !== 'done') {
      response.status(404).json({ error: 'there is no converted file' });
      return;
    }
    response.type('video/mp4').sendFile(resultOf(String(request.params.id)), (error) => error && next(error));
  });
  app.delete(conversionPath(':id'), async (request, response) => {
    const id = String(request.params.id);
    const one = running.get(id);
    one?.child?.kill('SIGKILL');
    running.delete(id);
    if (/^[A-Za-z0-9_-]+$/.test(id)) {
      for (const file of [sourceOf(id), `${sourceOf(id)}.json`, resultOf(id)])
        await rm(file, { force: true });
    }
    response.status(204).end();
  });
}
