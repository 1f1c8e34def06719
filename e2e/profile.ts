import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { BrowserContext, Page } from 'playwright-core';
import { launchProfile } from '../scripts/browser.mjs';
import { TestServer } from '../tests/test-server';
import { PHONE } from './app';

/** A browser whose files outlive its tabs, at the app, for the tests of one file. */
export class Profile {
  readonly server = new TestServer();
  private browser: BrowserContext | null = null;
  private readonly folder = mkdtempSync(path.join(tmpdir(), 'profile-'));

  get context(): BrowserContext {
    if (!this.browser) throw new Error('it was not opened');
    return this.browser;
  }

  async open(): Promise<void> {
    await this.server.start();
    this.browser = await launchProfile(this.folder);
  }

  async close(): Promise<void> {
    await this.browser?.close();
    await this.server.stop();
  }

  /** Brings a film in with a tab of its own. @returns the job's id. */
  async bringIn(film: string): Promise<string> {
    const page = await this.context.newPage();
    await page.setViewportSize(PHONE);
    await page.goto(this.server.origin);
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Bring in a video' }).click(),
    ]);
    await chooser.setFiles(film);
    await page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
    const job = page.url().split('/').pop() ?? '';
    await page.close();
    return job;
  }

  /** Opens a page of the app in a tab of its own. @param ready resolves once it is there. */
  async openAt(where: string, ready: (page: Page) => Promise<unknown>): Promise<Page> {
    for (let attempt = 1; ; attempt++) {
      const page = await this.context.newPage();
      await page.setViewportSize(PHONE);
      try {
        await page.goto(`${this.server.origin}${where}`);
        await ready(page);
        return page;
      } catch (error) {
        // A new tab may be given the process that is just ending; a browser may not get over one that ended.
        if (attempt === 3) throw error;
        void page.close().catch(() => undefined);
        if (attempt === 2) await this.restart();
      }
    }
  }

  /** Ends the browser in order, and starts it again with the same files. */
  private async restart(): Promise<void> {
    await this.browser?.close();
    this.browser = await launchProfile(this.folder);
  }

  /** Ends a tab's process at once, as when the system ends it: nothing of the page runs any more. */
  async endTab(page: Page): Promise<void> {
    const session = await this.context.newCDPSession(page);
    const crashed = page.waitForEvent('crash', { timeout: 5000 }).catch(() => undefined);
    void session.send('Page.crash').catch(() => undefined);
    await crashed;
    void page.close().catch(() => undefined);
  }
}
