import { createReadStream, createWriteStream, mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build } from 'esbuild';
import type { BrowserContext, Page } from 'playwright-core';
import type { StoreFigures } from './store';
import type { LayoutKind } from '../src/core/layout/layout';
import { launchProfile } from '../scripts/browser.mjs';

/** Functions that the harness page offers; see harness-page.ts. */
interface PageBench {
  exportChosen(seconds: number, videoBits: number): Promise<{ milliseconds: number; frames: number }>;
  passChosen(): Promise<{ pass: number; decode: number; frames: number }>;
  lookAtChosen(): Promise<number>;
  stepChosen(afterPass: boolean): Promise<number>;
  followChosen(): Promise<{ milliseconds: number; seconds: number; subjects: number }>;
  dragChosen(): Promise<{ drag: number; bare: number }>;
  threeChosen(frames: number, oneGo: boolean, videoBits: number): Promise<number>;
  layoutChosen(frames: number, kind: LayoutKind, videoBits: number): Promise<number>;
  wordsChosen(seconds: number, words: boolean, videoBits: number): Promise<number>;
  keystrokeChosen(captions: number): Promise<{ redraw: number; page: number }>;
  wordLayoutChosen(captions: number): Promise<{ layout: number; bare: number }>;
  sendResult(): Promise<void>;
  kernelTime(rounds: number): Promise<number>;
  measureStore(): Promise<StoreFigures>;
  taskTimes(): Promise<{ task: number; bare: number }>;
}
declare global {
  interface Window {
    bench: PageBench;
  }
}

const TYPES: Record<string, string> = { '.js': 'text/javascript', '.wasm': 'application/wasm' };

/** A browser with the harness page open. */
export interface Harness {
  browser: BrowserContext;
  page: Page;
  close(): Promise<void>;
}

/** Opens the harness in a fresh browser. @param result where the page's exports are written. */
export async function openHarness(result: string): Promise<Harness> {
  const script = await build({
    entryPoints: ['harness-page.ts', 'decode.worker.ts'].map((file) => path.join(import.meta.dirname, file)),
    bundle: true,
    format: 'esm',
    write: false,
    outdir: 'unused',
    loader: { '.wasm': 'file' },
  });
  const toText = (name: string) => script.outputFiles.find((file) => file.path.endsWith(name))?.text;
  const server = http.createServer((request, response) => {
    const url = request.url ?? '/';
    response.setHeader('cross-origin-opener-policy', 'same-origin');
    response.setHeader('cross-origin-embedder-policy', 'require-corp');
    response.setHeader('content-type', TYPES[path.extname(url)] ?? 'text/html');
    if (url === '/harness.js') response.end(toText('harness-page.js'));
    else if (url === '/decode.worker.js') response.end(toText('decode.worker.js'));
    else if (url === '/kernel-relaxed.wasm')
      createReadStream('src/kernel/kernel-relaxed.wasm').pipe(response);
    else if (/^\/(workers|models|fonts)\//.test(url))
      createReadStream(path.join('public', path.normalize(url))).pipe(response);
    else if (url === '/result') request.pipe(createWriteStream(result)).on('finish', () => response.end());
    else response.end('<body><input type="file"><script type="module" src="/harness.js"></script>');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const profile = mkdtempSync(path.join(tmpdir(), 'profile-'));
  const browser = await launchProfile(profile);
  const page = await browser.newPage();
  page.setDefaultTimeout(0);
  await page.goto(`http://localhost:${(server.address() as AddressInfo).port}/`);
  await page.waitForFunction(() => window.bench !== undefined);
  return {
    browser,
    page,
    async close() {
      await browser.close();
      rmSync(profile, { recursive: true, force: true });
      server.close();
    },
  };
}
