import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { BrowserContext, Page } from 'playwright-core';
import { launchProfile } from '../scripts/browser.mjs';
import { makeClip } from '../tests/make-clip';
import { SEED, seeded, soakFigure, trials } from '../tests/soak';
import { PHONE } from './app';
import { TestServer } from '../tests/test-server';

const TRIALS = trials(6, 100);
/** Longest that a person works before the page is ended, in milliseconds. */
const LATEST = 2500;

const server = new TestServer();
let context: BrowserContext;
let job: string;

beforeAll(async () => {
  await server.start();
  context = await launchProfile(mkdtempSync(path.join(tmpdir(), 'profile-')));
  const page = await context.newPage();
  await page.setViewportSize(PHONE);
  await page.goto(server.origin);
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Bring in a video' }).click(),
  ]);
  await chooser.setFiles(makeClip('killed.mp4', { size: '640x360', seconds: 3 }));
  await page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
  job = page.url().split('/').pop() ?? '';
  await page.close();
});
afterAll(async () => {
  await context.close();
  await server.stop();
});

/** What a job looks like to whoever opens it: the state that a command leaves, as one text. */
type State = string;

/** What the page holds of the job, and how many commands made it: asked of the page itself after each command. */
async function stateOf(page: Page): Promise<State> {
  const fields = ['From left', 'From top', 'Zoom'];
  const values = [];
  for (const field of fields) values.push(await page.getByLabel(field, { exact: true }).inputValue());
  const undo = await page.getByRole('button', { name: /^Undo/ }).getAttribute('aria-label');
  const redo = await page.getByRole('button', { name: /^Redo/ }).getAttribute('aria-label');
  return [...values, undo, redo].join(' | ');
}

async function openFraming(): Promise<Page> {
  for (let attempt = 1; ; attempt++) {
    const page = await context.newPage();
    await page.setViewportSize(PHONE);
    try {
      await page.goto(`${server.origin}/job/${job}/frame`);
      await page.getByLabel('From left', { exact: true }).waitFor({ timeout: 15_000 });
      return page;
    } catch (error) {
      // A new tab may be given the process that is just ending.
      if (attempt === 3) throw error;
      void page.close().catch(() => undefined);
    }
  }
}

/** Works on the framing at random, and notes every state that a command left, until it is ended. */
async function work(page: Page, random: () => number, seen: State[], ended: () => boolean): Promise<void> {
  const acts = [
    () => page.keyboard.press('ArrowRight'),
    () => page.keyboard.press('Shift+ArrowLeft'),
    () => page.keyboard.press('+'),
    () => page.keyboard.press('Control+z'),
    () => page.keyboard.press('Control+Shift+z'),
    async () => {
      const field = page.getByLabel('Zoom', { exact: true });
      await field.fill((1 + random()).toFixed(2));
      await field.press('Enter');
      await field.blur();
    },
    () => page.getByRole('button', { name: 'Put the subject on the left third' }).click(),
    () => page.getByRole('button', { name: 'Put the subject in the middle' }).click(),
  ];
  while (!ended()) {
    await acts[Math.floor(random() * acts.length)]?.();
    seen.push(await stateOf(page));
  }
}

describe('a page that is ended', () => {
  it(`${TRIALS} times at random moments comes back in a state that a command left`, async () => {
    const random = seeded(SEED);
    let commands = 0;
    let last: State | null = null;
    for (let trial = 0; trial < TRIALS; trial++) {
      const page = await openFraming();
      const seen: State[] = [await stateOf(page)];
      // What came back is what was left, or what the one command before the end left.
      if (last !== null) expect(last).toBe(seen[0]);
      let over = false;
      const working = work(page, random, seen, () => over).catch(() => undefined);
      await new Promise((resolve) => setTimeout(resolve, 200 + random() * LATEST));
      over = true;
      const session = await context.newCDPSession(page);
      // The tab's process ends at once, as when the system ends it: nothing of the page runs any more.
      const crashed = page.waitForEvent('crash', { timeout: 5000 }).catch(() => undefined);
      void session.send('Page.crash').catch(() => undefined);
      await crashed;
      await Promise.race([working, new Promise((resolve) => setTimeout(resolve, 1500))]);
      void page.close().catch(() => undefined);
      const again = await openFraming();
      const found = await stateOf(again);
      const known = seen.includes(found);
      if (!known) {
        // The last command may have been under way, its state never asked for: then undo leads to one that was.
        const undo = again.getByRole('button', { name: /^Undo/ });
        if (await undo.isEnabled()) await undo.click();
        expect(seen.map((line) => line.split(' | ').slice(0, 3).join())).toContain(
          (await stateOf(again)).split(' | ').slice(0, 3).join(),
        );
      }
      commands += seen.length - 1;
      last = await stateOf(again);
      await again.close();
    }
    soakFigure(
      'page ended while framing',
      `${TRIALS} ends among ${commands} commands: each came back as a command left it`,
    );
  }, 3_600_000);
});
