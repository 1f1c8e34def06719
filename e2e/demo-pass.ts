import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { Page } from 'playwright-core';
import { CACHE } from '../tests/encode-film';

/** The demo's fingerprint, by which the files of its pass are named. */
const FINGERPRINT = createHash('sha256').update(readFileSync('public/demo/kite-day.mp4')).digest('hex');
const FACTS = `${FINGERPRINT}.json`;
/** Files of the pass; what is found for other steps is each test's own. */
const isOfPass = (name: string): boolean =>
  name.startsWith(FINGERPRINT) && !/\.(speech|evidence)\./.test(name);

/** Where the files of the demo's pass are kept that this build made: its programs are named by their hashes. */
function keptFolder(): string {
  const hash = createHash('sha256').update(FINGERPRINT);
  for (const name of readdirSync('dist/workers').sort()) hash.update(name);
  return path.join(CACHE, `${hash.digest('hex')}-pass`);
}

/** Gives a browser the demo's pass that an earlier visit made, where there was one. */
export async function giveDemoPass(page: Page): Promise<void> {
  const folder = keptFolder();
  if (!existsSync(folder)) return;
  const address = '**/kept-pass/*';
  await page.route(address, (route) =>
    route.fulfill({ path: path.join(folder, path.basename(route.request().url())) }),
  );
  await page.evaluate(async (names) => {
    const root = await navigator.storage.getDirectory();
    const passes = await root.getDirectoryHandle('passes', { create: true });
    for (const name of names) {
      const file = await passes.getFileHandle(name, { create: true });
      await (await fetch(`/kept-pass/${name}`)).body?.pipeTo(await file.createWritable());
    }
  }, readdirSync(folder));
  await page.unroute(address);
}

/** Keeps the demo's pass that a visit made, if it came to its end. */
export async function keepDemoPass(page: Page): Promise<void> {
  const folder = keptFolder();
  if (existsSync(folder)) return;
  const files = await page.evaluate(async () => {
    const root = await navigator.storage.getDirectory();
    const passes = await root.getDirectoryHandle('passes', { create: true });
    const found: Record<string, string> = {};
    for await (const [name, handle] of passes as unknown as AsyncIterable<[string, FileSystemFileHandle]>) {
      const reader = new FileReader();
      reader.readAsDataURL(await handle.getFile());
      await new Promise((resolve) => (reader.onload = resolve));
      found[name] = String(reader.result).replace(/^.*,/, '');
    }
    return found;
  });
  // Its facts are written last.
  if (!(FACTS in files)) return;
  const names = Object.keys(files).filter(isOfPass);
  const fresh = `${folder}-${process.pid}`;
  mkdirSync(fresh, { recursive: true });
  for (const name of names) writeFileSync(path.join(fresh, name), Buffer.from(files[name] ?? '', 'base64'));
  // Another test may keep the same at this moment.
  if (!existsSync(folder)) renameSync(fresh, folder);
}
