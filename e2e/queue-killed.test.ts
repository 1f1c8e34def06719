import type { Page } from 'playwright-core';
import { makeClip } from '../tests/make-clip';
import { SEED, seeded, soakFigure, trials } from '../tests/soak';
import { CANVAS, SINGLE_PRESS_MS } from './app';
import { Profile } from './profile';
import { storedNames } from './stored-names';

const KILLS = trials(1, 20);
const EXPORTS = trials(2, 6);
/** When a tab is ended after it came back, at the latest, in milliseconds. */
const LATEST = trials(3000, 5000);

const profile = new Profile();
let job: string;

beforeAll(async () => {
  await profile.open();
  job = await profile.bringIn(makeClip('queued.mp4', { size: '640x360', seconds: 4 }));
  const page = await profile.openAt(`/job/${job}/canvas`, (there) =>
    there.getByLabel('Width', { exact: true }).waitFor(),
  );
  await page.getByLabel('Width', { exact: true }).fill(String(CANVAS.width));
  await page.getByLabel('Height', { exact: true }).fill(String(CANVAS.height));
  await button(page, 'Use this size').click();
  await page.close();
});
afterAll(() => profile.close());

const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true });
const openExport = (): Promise<Page> =>
  profile.openAt(`/job/${job}/export`, (page) => button(page, 'Export to MP4').waitFor({ timeout: 30_000 }));

describe('a queue of exports whose tab is ended', () => {
  it(`${KILLS} times at random moments makes all of them, each once, and leaves nothing else`, async () => {
    const random = seeded(SEED);
    let page = await openExport();
    for (let n = 0; n < EXPORTS; n++) {
      await button(page, 'Export to MP4').click();
      await page.waitForTimeout(SINGLE_PRESS_MS);
    }
    await page.getByRole('list', { name: 'Queue' }).waitFor();
    for (let kills = 0; kills < KILLS; kills++) {
      await page.waitForTimeout(300 + random() * LATEST);
      await profile.endTab(page);
      page = await openExport();
    }
    const downloads = button(page, 'Download');
    await downloads.nth(EXPORTS - 1).waitFor({ timeout: 300_000 });
    await page.getByRole('list', { name: 'Queue' }).waitFor({ state: 'hidden' });
    expect(await downloads.count()).toBe(EXPORTS);
    expect(await page.getByText('Read back: as asked').count()).toBe(EXPORTS);
    expect(await storedNames(page, 'exports')).toHaveLength(EXPORTS);
    soakFigure(
      'tab of a queue ended',
      `${KILLS} ends over ${EXPORTS} exports: each made once, and nothing left over`,
    );
  }, 1_800_000);
});
