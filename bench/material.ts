/** Material that benchmarks work on: the demo's master, films made of it, and one folder for results. */
import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { openHarness } from './harness';

export const MASTER = 'public/demo/kite-day.mp4';
export const BITS = 8_000_000;
export const SECONDS = 20;

/** Removed when all is measured. */
export const work = mkdtempSync(path.join(tmpdir(), 'bench-'));
/** Where the page sends its last export. */
export const result = path.join(work, 'result.mp4');

/** Runs ffmpeg quietly; what it makes replaces what was there. */
export function ffmpeg(...args: string[]): void {
  execFileSync('ffmpeg', ['-y', '-v', 'error', ...args]);
}

/** Seconds of wall time that an ffmpeg run takes; the best of some, since other work on the machine only adds. */
export function ffmpegSeconds(args: string[], runs: number): number {
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    const { status, stderr } = spawnSync('ffmpeg', ['-y', '-v', 'error', ...args], { encoding: 'utf8' });
    if (status !== 0) throw new Error(stderr);
    return (performance.now() - start) / 1000;
  });
  return Math.min(...times);
}

/** A 1080p30 master as editing programs export them: fine grain, so that it is as heavy as real pictures. */
export function grainyMaster(name: string, seconds: number, keyFrames: number): string {
  const file = path.join(work, name);
  const filter = ['-vf', 'fps=30,noise=alls=7:allf=t', '-t', String(seconds), '-pix_fmt', 'yuv420p'];
  const rate = ['-b:v', '18M', '-maxrate', '30M', '-bufsize', '36M', '-g', String(keyFrames)];
  const codec = ['-c:v', 'libx264', '-preset', 'veryfast', ...rate, '-c:a', 'copy'];
  ffmpeg('-stream_loop', '1', '-i', MASTER, ...filter, ...codec, file);
  return file;
}

/** The demo's master again and again, for so many seconds. */
export function loopedMaster(name: string, seconds: number): string {
  const file = path.join(work, name);
  ffmpeg('-stream_loop', '20', '-i', MASTER, '-c', 'copy', '-t', String(seconds), file);
  return file;
}

/** Does something in the harness's page, in a browser of its own, once a file is chosen there. */
export async function inHarness<T>(file: string, run: (page: Page) => Promise<T>): Promise<T> {
  const harness = await openHarness(result);
  try {
    await harness.page.setInputFiles('input', file);
    return await run(harness.page);
  } finally {
    await harness.close();
  }
}
