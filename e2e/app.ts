import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Browser, BrowserContext, Download, Page } from 'playwright-core';
import { launchBrowser } from '../scripts/browser.mjs';
import { giveDemoPass, keepDemoPass } from './demo-pass';
import { trials } from '../tests/soak';
import { TestServer } from '../tests/test-server';

export { TestServer };

export const PHONE = { width: 390, height: 844 };
export const WIDE = { width: 1280, height: 800 };

/** Canvas for exports whose size tells nothing: in `npm test` a ninth of an outlet's own size. */
export const CANVAS = trials({ width: 360, height: 640 }, { width: 1080, height: 1920 });

/** How long something may take to come onto the page, in milliseconds: another test may have the machine as well. */
const PATIENCE = 60_000;
/** Two presses that are so far apart are two, in milliseconds. */
export const SINGLE_PRESS_MS = 700;

/** A person with a browser of their own, looking at the app. */
export class Visitor {
  private sawDemo = false;

  private constructor(
    private readonly browser: Browser,
    readonly context: BrowserContext,
    readonly page: Page,
    /** Errors that the page threw: there should be none. */
    readonly errors: string[],
  ) {}

  /** @param origin of the app; where its server is still starting, the browser starts beside it. */
  static async arrive(
    origin: string | Promise<string>,
    viewport = PHONE,
    touch = false,
    scale = 1,
  ): Promise<Visitor> {
    const browser = await launchBrowser();
    const context = await browser.newContext({
      viewport,
      acceptDownloads: true,
      // It would copy the whole app aside for each of many browsers: its own test has it.
      serviceWorkers: 'block',
      hasTouch: touch,
      deviceScaleFactor: scale,
      baseURL: await origin,
    });
    const page = await context.newPage();
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(error.message));
    page.setDefaultTimeout(PATIENCE);
    await page.goto('/');
    await page.getByRole('button', { name: 'Bring in a video' }).waitFor();
    return new Visitor(browser, context, page, errors);
  }

  async leave(): Promise<void> {
    if (this.sawDemo) await keepDemoPass(this.page);
    await this.browser.close();
  }

  button(name: string | RegExp) {
    return this.page.getByRole('button', { name, exact: typeof name === 'string' });
  }

  press(name: string | RegExp): Promise<void> {
    return this.button(name).first().click();
  }

  /** Waits until some text is on the page. */
  sees(text: string | RegExp, timeout = PATIENCE): Promise<void> {
    return this.page.getByText(text).first().waitFor({ timeout });
  }

  /** Waits until something with a role and a name is on the page. */
  has(
    role: 'listitem' | 'row' | 'img' | 'progressbar' | 'radio' | 'button',
    name: string | RegExp,
  ): Promise<void> {
    return this.page
      .getByRole(role, { name, exact: typeof name === 'string' })
      .first()
      .waitFor();
  }

  /** Drags with the mouse from a place on the page by a distance, in pixels. */
  async drag(from: { x: number; y: number }, across: number, down = 0): Promise<void> {
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move(from.x + across, from.y + down, { steps: 8 });
    await this.page.mouse.up();
  }

  /** Drags with a finger from a place on the page by a distance, in pixels; the page must be a touch screen's. */
  async swipe(from: { x: number; y: number }, across: number, down = 0): Promise<void> {
    const touch = await this.context.newCDPSession(this.page);
    const pointAt = (share: number) => ({ x: from.x + across * share, y: from.y + down * share });
    const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', points: { x: number; y: number }[]) =>
      touch.send('Input.dispatchTouchEvent', { type, touchPoints: points });
    await send('touchStart', [pointAt(0)]);
    for (let n = 1; n <= 8; n++) await send('touchMove', [pointAt(n / 8)]);
    await send('touchEnd', []);
    await touch.detach();
  }

  /** Taps something with a role and a name. */
  async tap(role: 'button' | 'radio', name: string | RegExp): Promise<void> {
    const found = this.page.getByRole(role, { name, exact: typeof name === 'string' }).first();
    await found.scrollIntoViewIfNeeded();
    await found.tap();
  }

  /** The middle of something on the page, in pixels. */
  async middleOf(role: 'img' | 'slider', name: string): Promise<{ x: number; y: number }> {
    const found = this.page.getByRole(role, { name, exact: true });
    await found.scrollIntoViewIfNeeded();
    const box = await found.boundingBox();
    if (!box) throw new Error(`${name} is not on screen`);
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  }

  /** Picks a file in the file picker. */
  async pick(file: string, opener = 'Bring in a video'): Promise<void> {
    const [chooser] = await Promise.all([this.page.waitForEvent('filechooser'), this.press(opener)]);
    await chooser.setFiles(file);
  }

  /** Brings a file in and waits for its job sheet. @returns the job's id. */
  async bringIn(file: string): Promise<string> {
    await this.pick(file);
    await this.page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
    return this.page.url().split('/').pop() ?? '';
  }

  /** Opens the demo, looked at before: by this build, in another visit. */
  async openDemo(): Promise<void> {
    await giveDemoPass(this.page);
    this.sawDemo = true;
    await this.press('Open the demo');
    await this.page.waitForURL(/\/job\/kite-day$/);
  }

  /** Goes to a step from the job sheet, or from another step. */
  async step(title: string): Promise<void> {
    const back = this.button('Job sheet');
    if (await back.isVisible().catch(() => false)) await back.click();
    await this.page.getByRole('link', { name: new RegExp(`^${title}:`) }).click();
    await this.page.getByRole('heading', { name: title, level: 1 }).waitFor();
  }

  /** Gives the canvas at hand a size of its own, in pixels. */
  async resizeCanvas({ width, height } = CANVAS): Promise<void> {
    await this.step('Canvas');
    await this.page.getByLabel('Width', { exact: true }).fill(String(width));
    await this.page.getByLabel('Height', { exact: true }).fill(String(height));
    await this.press('Use this size');
  }

  /** Types a figure into a field and leaves it. */
  async type(field: string, text: string): Promise<void> {
    const input = this.page.getByLabel(field, { exact: true });
    await input.fill(text);
    await input.press('Enter');
  }

  /** Lets a stop pass, with a reason. */
  async override(rule: string, reason = 'it is meant so'): Promise<void> {
    await this.press(`Override “${rule}”…`);
    await this.page.getByLabel(`Why “${rule}” may pass`).fill(reason);
    await this.press(`Override “${rule}”`);
  }

  /** Opens what can be done with a job of the list, and does it. */
  async doWith(job: string, act: string): Promise<void> {
    await this.press(`More for ${job}`);
    await this.button(act).last().click();
  }

  /** Empties the list of jobs, as a person does who deletes them all; their masters stay. */
  forgetJobs(): Promise<void> {
    return this.page.evaluate(forgetJobs);
  }

  /** Reads what the browser stores of jobs and settings, by key. */
  stored(): Promise<Record<string, string>> {
    return this.page.evaluate(
      () =>
        new Promise<Record<string, string>>((resolve, reject) => {
          const opening = indexedDB.open('gusset');
          opening.onerror = () => reject(new Error('the database does not open'));
          opening.onsuccess = () => {
            const entries: Record<string, string> = {};
            const walk = opening.result.transaction('entries').objectStore('entries').openCursor();
            walk.onsuccess = () => {
              if (!walk.result) return resolve(entries);
              entries[String(walk.result.key)] = String(walk.result.value);
              walk.result.continue();
            };
          };
        }),
    );
  }

  value(field: string): Promise<string> {
    return this.page.getByLabel(field, { exact: true }).inputValue();
  }

  /** The accessible name of a finding of the check page, such as `Length: pass`. */
  async finding(name: string): Promise<string | null> {
    return this.page.getByRole('listitem', { name: new RegExp(`^${name}: `) }).getAttribute('aria-label');
  }

  /** Sets a variable bit rate, in megabits a second: of the canvas at hand, or of all. */
  async setBitRate(megabits: string, canvases: 'one' | 'all' = 'one'): Promise<void> {
    await this.press(/^Bit rate/);
    await this.page.getByRole('radio', { name: 'Variable', exact: true }).click();
    await this.type('Target', megabits);
    if (canvases === 'one') return;
    await this.press('Presets');
    await this.press(/^Make all \d canvases like this$/);
  }

  /** Asks for so many exports of what the export page shows: a press right behind another counts as the same. */
  async askForExports(count: number): Promise<void> {
    for (let n = 0; n < count; n++) {
      if (n > 0) await this.page.waitForTimeout(SINGLE_PRESS_MS);
      await this.press('Export to MP4');
    }
  }

  /** Exports what the export page shows, and waits for its proof. */
  async exportClip(): Promise<void> {
    await this.press('Export to MP4');
    await this.button('Download').waitFor({ timeout: 180_000 });
  }

  /** Signs in to an outlet from the post page, and comes back to it. */
  async signIn(outlet: string, login: string): Promise<void> {
    await this.press(new RegExp(`^(Sign in to|Use another account of) ${outlet}$`));
    await this.page.getByLabel('Name', { exact: true }).fill(login);
    await this.page.getByLabel('Password').fill('kite-day');
    await this.press('Sign in and allow');
    await this.page.waitForURL(/signed-in=/);
    await this.button(/^(Post|Schedule) .* as /).waitFor();
  }

  /** Brings a film in and exports it: as it comes, or at a size. @returns the finished file. */
  async exportOf(film: string, size?: typeof CANVAS): Promise<string> {
    await this.page.goto('/');
    await this.bringIn(film);
    if (size) await this.resizeCanvas(size);
    await this.step('Export');
    await this.exportClip();
    return (await this.download()).file;
  }

  /** Waits until so many exports are finished, and downloads each. */
  async downloadAll(count: number, timeout = 400_000): Promise<string[]> {
    const buttons = this.page.getByRole('button', { name: 'Download' });
    await buttons.nth(count - 1).waitFor({ timeout });
    const files: string[] = [];
    for (let n = 0; n < count; n++) files.push((await this.download(n)).file);
    return files;
  }

  /** @param place of the export in the list. */
  async download(place = 0): Promise<{ name: string; file: string }> {
    const [download]: [Download, void] = await Promise.all([
      this.page.waitForEvent('download'),
      this.button('Download').nth(place).click(),
    ]);
    const file = path.join(mkdtempSync(path.join(tmpdir(), 'down-')), download.suggestedFilename());
    await download.saveAs(file);
    return { name: download.suggestedFilename(), file };
  }
}

/** In the page: empties the list of jobs. */
export const forgetJobs = (): Promise<void> =>
  new Promise((resolve, reject) => {
    const opening = indexedDB.open('gusset');
    opening.onerror = () => reject(new Error('the database does not open'));
    opening.onsuccess = () => {
      const emptying = opening.result.transaction('entries', 'readwrite');
      emptying.objectStore('entries').clear();
      emptying.oncomplete = () => {
        opening.result.close();
        resolve();
      };
    };
  });

/** Screen of a visitor: its size in pixels, whether it is touched, and device pixels per pixel. */
interface Screen {
  viewport: { width: number; height: number };
  touch: boolean;
  scale: number;
}

/** A server and a person at it, there for every test of the describe block that asks for them. */
export function atTheApp(
  screen: Partial<Screen> = {},
  serverArgs: readonly string[] = [],
): {
  readonly visitor: Visitor;
  readonly server: TestServer;
} {
  const server = new TestServer(0, serverArgs);
  let visitor: Visitor | null = null;
  beforeAll(async () => {
    const { viewport, touch, scale } = screen;
    const origin = server.start().then(() => server.origin);
    visitor = await Visitor.arrive(origin, viewport, touch, scale);
  });
  afterAll(async () => {
    await visitor?.leave();
    await server.stop();
  });
  return {
    server,
    get visitor() {
      if (!visitor) throw new Error('nobody has arrived yet');
      return visitor;
    },
  };
}
