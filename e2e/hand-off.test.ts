import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import jsQR from 'jsqr';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { Browser, Page } from 'playwright-core';
import { launchBrowser } from '../scripts/browser.mjs';
import { lanAddresses } from '../server/hand-off/lan';
import { faultsOf } from '../tests/axe';
import { filmed } from '../tests/make-filmed';
import { atTheApp, PHONE } from './app';

// A phone is in no secure context: where this machine is in a network, its own address there stands for that.
const network = lanAddresses()[0] ?? '127.0.0.1';

/** Reads the code on a picture with another library. */
async function scanned(picture: Buffer): Promise<string | null> {
  const image = await loadImage(picture);
  const surface = createCanvas(image.width, image.height);
  const ink = surface.getContext('2d');
  ink.drawImage(image, 0, 0);
  const { data, width, height } = ink.getImageData(0, 0, image.width, image.height);
  return jsQR(data, width, height)?.data ?? null;
}

describe('a file that goes from a desk to a phone', () => {
  const there = atTheApp({}, ['--lan', '--lan-port', '0', '--lan-address', network]);
  let browser: Browser;
  let phone: Page;
  let saved: string;
  beforeAll(async () => {
    browser = await launchBrowser();
    phone = await (await browser.newContext({ viewport: PHONE, acceptDownloads: true })).newPage();
  });
  afterAll(() => browser.close());

  const check = async (file: string) => {
    const [chooser] = await Promise.all([
      phone.waitForEvent('filechooser'),
      phone.getByText('Check the saved file').click(),
    ]);
    await chooser.setFiles(file);
  };

  it('is offered by a code to scan, with its address beside it', async () => {
    const { visitor, server } = there;
    await visitor.exportOf(filmed('plain', 'null', { seconds: 1 }));
    await visitor.press('To a phone');
    await visitor.press('Show a code to scan');
    const code = visitor.page.getByRole('img', { name: /^Code for / });
    await code.waitFor();
    const address = (await code.getAttribute('aria-label'))?.replace('Code for ', '') ?? '';
    expect(address.startsWith(`${server.lan}/`)).toBe(true);
    expect(await scanned(await code.screenshot())).toBe(address);
    await visitor.sees('No phone has begun to fetch it yet.');
    expect(await faultsOf(visitor.page)).toEqual([]);
    await phone.goto(address);
    await phone.getByRole('link', { name: 'Save the file' }).waitFor();
    expect(await faultsOf(phone)).toEqual([]);
  });

  it('is saved there, and told from another by its hash', async () => {
    const { visitor } = there;
    const [download] = await Promise.all([
      phone.waitForEvent('download'),
      phone.getByRole('link', { name: 'Save the file' }).click(),
    ]);
    saved = path.join(mkdtempSync(path.join(tmpdir(), 'phone-')), download.suggestedFilename());
    await download.saveAs(saved);
    await visitor.sees('All of it was fetched. Check it on the phone: the result is shown here.');
    const short = `${saved}.short.mp4`;
    writeFileSync(short, readFileSync(saved).subarray(0, -3));
    await check(short);
    await phone.getByText(/^Not the same/).waitFor();
    await visitor.sees('What the phone has is not the same');
  });

  it('goes to the device’s own share sheet where it has one', async () => {
    const { page } = there.visitor;
    // Headless browsers have no sheet: what it would be given is what counts.
    await page.addInitScript(() => {
      const given: string[] = [];
      Object.assign(window, { given });
      Object.assign(navigator, {
        canShare: () => true,
        share: (what: { files: File[] }) => {
          given.push(...what.files.map(({ name, size, type }) => `${name} ${size} ${type}`));
          return Promise.resolve();
        },
      });
    });
    await page.reload();
    await there.visitor.press('Share the file');
    const name = path.basename(saved);
    expect(await page.evaluate(() => (window as unknown as { given: string[] }).given)).toEqual([
      `${name} ${readFileSync(saved).length} video/mp4`,
    ]);
    // The offer is still there after the reload.
    await there.visitor.sees(/^Open for /);
  });

  it('is known at the desk to be the same, and its address is closed', async () => {
    const { visitor } = there;
    const address = phone.url();
    await check(saved);
    await phone.getByText(/^The same/).waitFor();
    await visitor.sees('It arrived unchanged');
    await visitor.press('Job sheet');
    await visitor.step('Export');
    const { file } = await visitor.download();
    expect(readFileSync(saved).equals(readFileSync(file))).toBe(true);
    expect((await phone.goto(address))?.status()).toBe(410);
    await phone.getByRole('heading', { name: 'It has arrived' }).waitFor();
    expect(visitor.errors).toEqual([]);
  });
});
