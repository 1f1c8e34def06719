import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { type Browser, launch, type Page } from 'puppeteer-core';
import { type CANVAS, forgetJobs, PHONE } from './app';

/** How long something may take to come onto the page, in milliseconds. */
const PATIENCE = 120_000;

/** A person with the other engine: Debian's Firefox, driven by WebDriver BiDi. */
export class OtherVisitor {
  private constructor(
    private readonly origin: string,
    private readonly browser: Browser,
    readonly page: Page,
    private readonly downloads: string,
    /** Errors that the page and its workers wrote to the console: there should be none. */
    readonly errors: string[],
  ) {}

  static async arrive(origin: string): Promise<OtherVisitor> {
    const downloads = mkdtempSync(path.join(tmpdir(), 'down-'));
    const browser = await launch({
      browser: 'firefox',
      executablePath: process.env.GUSSET_FIREFOX ?? execFileSync('which', ['firefox-esr']).toString().trim(),
      headless: true,
      defaultViewport: PHONE,
      extraPrefsFirefox: {
        'browser.download.folderList': 2,
        'browser.download.dir': downloads,
        'browser.helperApps.neverAsk.saveToDisk': 'video/mp4',
      },
    });
    const page = await browser.newPage();
    const errors: string[] = [];
    page.on('pageerror', (error) => errors.push(String(error)));
    page.on('console', (message) => {
      if (message.type() === 'error') errors.push(message.text());
    });
    page.setDefaultTimeout(PATIENCE);
    const visitor = new OtherVisitor(origin, browser, page, downloads, errors);
    await visitor.goHome();
    return visitor;
  }

  leave(): Promise<void> {
    return this.browser.close();
  }

  async goHome(): Promise<void> {
    await this.page.goto(this.origin);
    await this.has('button', 'Bring in a video');
  }

  /** Waits until something with a role and a name is on the page. */
  async has(role: string, name: string): Promise<void> {
    await this.page.locator(`::-p-aria([role="${role}"][name="${name}"])`).wait();
  }

  async press(name: string): Promise<void> {
    await this.page.locator(`::-p-aria([role="button"][name="${name}"])`).click();
  }

  /** Waits until some text is on the page. */
  async sees(text: string): Promise<void> {
    await this.page.waitForFunction((wanted) => document.body.innerText.includes(wanted), {}, text);
  }

  async type(field: string, text: string): Promise<void> {
    await this.page.locator(`::-p-aria([role="textbox"][name="${field}"])`).fill(text);
    await this.page.keyboard.press('Enter');
  }

  /** Fills in a field of a page that is not the app's. */
  async fill(selector: string, text: string): Promise<void> {
    await this.page.locator(selector).fill(text);
  }

  /** The text of something that is named so. */
  async textOf(name: string): Promise<string> {
    const found = await this.page.waitForSelector(`[aria-label="${name}"]`);
    return (await found?.evaluate((element) => element.textContent)) ?? '';
  }

  /** The names of what is in a list. */
  labelsOf(list: string): Promise<(string | null)[]> {
    return this.page.$$eval(`[role="list"][aria-label="${list}"] [role="listitem"]`, (items) =>
      items.map((item) => item.getAttribute('aria-label')),
    );
  }

  /** Waits for a job sheet, or for why there is none. @returns the words of the refusal, or null. */
  async refusal(): Promise<string | null> {
    await this.page.waitForFunction(
      () => /\/job\/[^/]+$/.test(location.pathname) || document.querySelector('[role="alert"]'),
    );
    return this.page.evaluate(() => document.querySelector<HTMLElement>('[role="alert"]')?.innerText ?? null);
  }

  /** Empties the list of jobs, and deletes their files. */
  async forgetJobs(): Promise<void> {
    await this.page.evaluate(forgetJobs);
    await this.page.evaluate(async () => {
      const folder = await navigator.storage.getDirectory();
      for await (const name of folder.keys()) {
        await folder.removeEntry(name, { recursive: true }).catch(() => undefined);
      }
    });
  }

  /** Drops a file on the page. A small one: it goes through as text. */
  async drop(file: string): Promise<void> {
    await this.page.evaluate(
      (name, base64) => {
        const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
        const dataTransfer = new DataTransfer();
        dataTransfer.items.add(new File([bytes], name, { type: 'video/mp4' }));
        window.dispatchEvent(new DragEvent('drop', { dataTransfer, cancelable: true }));
      },
      path.basename(file),
      readFileSync(file).toString('base64'),
    );
  }

  /** Goes to a step from the job sheet, or from another step. */
  async step(title: string): Promise<void> {
    if (!/\/job\/[^/]+$/.test(new URL(this.page.url()).pathname)) await this.press('Job sheet');
    await this.page.locator(`::-p-xpath(//a[starts-with(@aria-label, "${title}:")])`).click();
    await this.has('heading', title);
  }

  /** Gives the canvas at hand a size of its own, in pixels. */
  async resizeCanvas({ width, height }: typeof CANVAS): Promise<void> {
    await this.step('Canvas');
    await this.type('Width', String(width));
    await this.type('Height', String(height));
    await this.press('Use this size');
  }

  /** Brings a film in and exports it: as it comes, or at a size. @returns the finished file. */
  async exportOf(film: string, size?: typeof CANVAS): Promise<string> {
    await this.goHome();
    await this.drop(film);
    await this.page.waitForFunction(() => /\/job\/[^/]+$/.test(location.pathname));
    if (size) await this.resizeCanvas(size);
    await this.step('Export');
    await this.press('Export to MP4');
    await this.has('button', 'Download');
    return this.download();
  }

  async download(): Promise<string> {
    const before = readdirSync(this.downloads);
    await this.press('Download');
    const fresh = () => readdirSync(this.downloads).filter((name) => !before.includes(name));
    const whole = () => fresh().length > 0 && !fresh().some((name) => name.endsWith('.part'));
    await expect(() => Promise.resolve(whole())).toBecomeTrue();
    return path.join(this.downloads, fresh()[0] ?? '');
  }
}
