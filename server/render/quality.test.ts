import { execFileSync } from 'node:child_process';
import { mkdtempSync, openSync, statSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type HardFilm, HARD_FILMS, hardFilm } from '../../tests/hard-films';
import { smallOrder } from '../../tests/small-order';
import { drawn, soakFigure, trials } from '../../tests/soak';
import { drawSegment } from './draw';
import { rawInput } from './encoder-args';
import type { RenderOrder } from './order';
import { pictureBytes } from './packet-bytes';
import { renderFile } from './render';

const folder = mkdtempSync(path.join(tmpdir(), 'quality-'));
const SECONDS = trials(2, 4);
const GRAINY: HardFilm[] = ['grainy', 'coarse', 'dark', 'fast and fine'];
const forEver = () => new AbortController().signal;

async function rendered(order: RenderOrder, name: string): Promise<string> {
  const to = path.join(folder, `${name}.mp4`);
  await renderFile(order, { folder: `${to}.parts`, to, signal: forEver() });
  return to;
}

/** Every frame of an order, as its encoder gets them. */
async function rawOf(order: RenderOrder, name: string): Promise<string> {
  const file = path.join(folder, `${name}.raw`);
  const to = openSync(file, 'w');
  const take = (frame: Uint8Array) => Promise.resolve(void writeSync(to, frame));
  await drawSegment(order, { start: 0, frames: order.plan.frames }, take, forEver());
  return file;
}

/** Likeness in luma of a file to raw frames, over all of them, by ffmpeg. */
function likeness(order: RenderOrder, raw: string, file: string): number {
  const args = ['-hide_banner', '-cpuflags', '0', ...rawInput(order.plan, raw), '-i', file, '-lavfi', 'ssim'];
  const said = execFileSync('bash', ['-c', 'ffmpeg "$@" -f null - 2>&1', 'bash', ...args]).toString();
  return Number(/SSIM Y:([\d.]+)/.exec(said)?.[1]);
}

describe('a file of the server', () => {
  it('lands on the size that was asked for, within 3 %, whatever the film', async () => {
    const films = drawn(HARD_FILMS, 1);
    const off: number[] = [];
    for (const name of films) {
      const bytes = 400_000;
      const order = await smallOrder(hardFilm(name, SECONDS), {
        rate: { kind: 'size', bytes, each: 'file' },
      });
      off.push(statSync(await rendered(order, `size ${name}`)).size / bytes - 1);
    }
    const worst = off.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a));
    expect(Math.abs(worst)).toBeLessThanOrEqual(0.03);
    soakFigure(
      'a size to land on, server',
      `${films.length} films, off by ${(100 * worst).toFixed(2)} % at most`,
    );
  }, 600_000);

  it('is as good as ffmpeg’s two passes at the preset medium with the same bits', async () => {
    const films = drawn(GRAINY, 1);
    const less: number[] = [];
    for (const name of films) {
      const order = await smallOrder(hardFilm(name, SECONDS), {
        rate: { kind: 'variable', bits: 1_500_000, most: null },
      });
      const ours = await rendered(order, `ours ${name}`);
      const raw = await rawOf(order, name);
      const bits = ((await pictureBytes(ours)) * 8 * 24) / order.plan.frames;
      const theirs = path.join(folder, `theirs ${name}.mp4`);
      for (const pass of ['1', '2']) {
        const log = ['-pass', pass, '-passlogfile', path.join(folder, name)];
        const codec = ['-c:v', 'libx264', '-preset', 'medium', '-b:v', String(Math.round(bits)), ...log];
        const to = pass === '1' ? ['-f', 'null', '-'] : ['-y', theirs];
        execFileSync('ffmpeg', ['-v', 'error', ...rawInput(order.plan, raw), ...codec, ...to]);
      }
      // Neither lands on a rate to the bit.
      const over = (await pictureBytes(theirs)) / (await pictureBytes(ours)) - 1;
      expect(Math.abs(over)).toBeLessThan(0.06);
      less.push(likeness(order, raw, theirs) - likeness(order, raw, ours));
    }
    const worst = Math.max(...less);
    expect(worst).toBeLessThanOrEqual(0.002);
    soakFigure(
      'server beside ffmpeg, preset medium, two passes',
      `${films.length} grainy films, SSIM less by ${worst.toFixed(4)} at most`,
    );
  }, 600_000);
});
