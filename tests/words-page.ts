import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { BrowserContext } from 'playwright-core';

/** Words at a place of a canvas, in one face that ships. */
export interface DrawnWords {
  text: string;
  /** Of `public/fonts`. */
  file: string;
  weight: number;
  size: number;
  colour: string;
  /** Of the middle of its one line, and of its baseline. */
  x: number;
  y: number;
}

/** Pixels of a canvas. */
interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * Words as a plain page of the browser lays them out and draws them, with nothing of ours but the font's file: what ours
 * is held to. @returns a PNG of the whole canvas.
 */
export async function wordsByPage(
  context: BrowserContext,
  canvas: { width: number; height: number },
  ground: string,
  words: DrawnWords,
): Promise<Buffer> {
  const page = await context.newPage();
  await page.setViewportSize(canvas);
  const font = readFileSync(`public/fonts/${words.file}`).toString('base64');
  const { x, y, text, weight, size, colour } = words;
  await page.setContent(`<!doctype html><meta charset="utf-8"><style>
    @font-face { font-family: F; font-weight: ${weight}; src: url(data:font/woff2;base64,${font}); }
    body { margin: 0; background: ${ground}; }
    text { font: ${weight} ${size}px F; fill: ${colour}; text-anchor: middle; text-rendering: geometricPrecision; }
    </style><svg width="${canvas.width}" height="${canvas.height}"><text x="${x}" y="${y}">${text}</text></svg>`);
  await page.evaluate(() => document.fonts.ready);
  const picture = await page.screenshot({ scale: 'css' });
  await page.close();
  return picture;
}

/** A part of a picture, of a frame of a film, or of a still, as a file of its own. */
export function cutOut(
  file: string,
  { x, y, width, height }: Box,
  { frame = 0, scale }: { frame?: number; scale?: string } = {},
): string {
  const out = path.join(mkdtempSync(path.join(tmpdir(), 'part-')), 'part.png');
  const filter = [
    `select=eq(n\\,${frame})`,
    ...(scale === undefined ? [] : [`scale=${scale}:flags=area`]),
    `crop=${width}:${height}:${x}:${y}:exact=1`,
    'format=rgb24',
  ].join(',');
  execFileSync('ffmpeg', ['-y', '-v', 'error', '-i', file, '-vf', filter, '-frames:v', '1', out]);
  return out;
}

/** Bytes as a file. */
export function asFile(bytes: Buffer, name: string): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'file-')), name);
  writeFileSync(file, bytes);
  return file;
}
