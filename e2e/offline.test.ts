import { readFileSync } from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../scripts/browser.mjs';
import { filmed } from '../tests/make-filmed';
import { PHONE, TestServer } from './app';

describe('the app on a device', () => {
  const server = new TestServer();
  let browser: Browser;
  let page: Page;
  beforeAll(async () => {
    await server.start();
    browser = await launchBrowser();
    page = await (await browser.newContext({ viewport: PHONE, baseURL: server.origin })).newPage();
    await page.goto('/');
    await page.getByText('The app is kept on this device').waitFor({ timeout: 120_000 });
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
  });

  it('can be installed: a manifest, icons of the sizes it names, and a worker', async () => {
    const session = await page.context().newCDPSession(page);
    const { errors, url } = await session.send('Page.getAppManifest');
    expect(errors).toEqual([]);
    expect(url).toMatch(/manifest\.webmanifest$/);
    const { installabilityErrors } = await session.send('Page.getInstallabilityErrors');
    // A private window, as tests have, installs nothing; that must be all.
    expect(installabilityErrors.map(({ errorId }) => errorId).filter((id) => id !== 'in-incognito')).toEqual(
      [],
    );
  });

  it('takes a video that another app shares', async () => {
    const film = filmed('plain', 'null', { seconds: 1 });
    // The share sheet posts a form; a page of ours may not, so a stand-in’s does.
    await page.goto('/outlets/verrow/');
    await page.setContent(
      '<form method="post" action="/share" enctype="multipart/form-data"><input type="file" name="videos"><button>Share</button></form>',
    );
    await page.locator('input').setInputFiles({
      ...{ name: 'Süd kite.mp4', mimeType: 'video/mp4', buffer: readFileSync(film) },
    });
    await page.getByRole('button', { name: 'Share' }).click();
    await page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
    await page.getByText('Süd kite').first().waitFor();
  });

  it('opens, and goes on with its job, while nothing can be reached', async () => {
    const job = page.url();
    await server.stop('SIGKILL');
    await page.goto('/');
    await page.getByRole('button', { name: 'Bring in a video' }).waitFor();
    await page.goto(job);
    await page.getByRole('link', { name: /^Length:/ }).click();
    await page.getByRole('heading', { name: 'Length', level: 1 }).waitFor();
    await page.goto('/');
    const [chooser] = await Promise.all([
      page.waitForEvent('filechooser'),
      page.getByRole('button', { name: 'Bring in a video' }).click(),
    ]);
    await chooser.setFiles(path.resolve(filmed('dark', 'eq=brightness=-0.3', { seconds: 1 })));
    await page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
  });
});
