import type { Page } from 'playwright-core';
import { makeClip } from '../tests/make-clip';
import { atTheApp } from './app';

const film = makeClip('controls.mp4', { size: '640x360', seconds: 30 });

/** Tells whether a view of the player shows a picture: pixels of more than a few values. */
const hasPoint = (page: Page, name: string): Promise<boolean> =>
  page.getByRole('img', { name, exact: true }).evaluate((element) => {
    const copy = document.createElement('canvas');
    [copy.width, copy.height] = [32, 32];
    const context = copy.getContext('2d');
    context?.drawImage(element as HTMLCanvasElement, 0, 0, 32, 32);
    return new Set(context?.getImageData(0, 0, 32, 32).data).size > 8;
  });

describe('controls by key and by hand', () => {
  const here = atTheApp();
  const divider = () => here.visitor.page.getByRole('slider', { name: 'Divider 1' });
  const place = async () => Number(await divider().getAttribute('aria-valuenow'));

  it('take Space where they have the focus, and it plays nothing then', async () => {
    const { visitor } = here;
    await visitor.bringIn(film);
    await visitor.step('Framing');
    await visitor.page.getByRole('radio', { name: 'Layout', exact: true }).click();
    await visitor.page.getByRole('radio', { name: 'Stacked', exact: true }).focus();
    await visitor.page.keyboard.press(' ');
    await divider().waitFor();
    await visitor.button('Play').waitFor();
    expect(await visitor.button('Pause').count()).toBe(0);
    await visitor.page.keyboard.press('ArrowLeft');
    const before = visitor.page.getByRole('radio', { name: 'Single', exact: true });
    await expect(async () => (await before.getAttribute('aria-checked')) === 'true').toBecomeTrue();
    await visitor.page.keyboard.press('ArrowRight');
    await divider().waitFor();
  });

  it('move a divider by keys and by its field', async () => {
    const { visitor } = here;
    expect(await place()).toBe(50);
    await divider().focus();
    await visitor.page.keyboard.press('ArrowDown');
    await visitor.page.keyboard.press('PageDown');
    await expect(async () => (await place()) === 61).toBecomeTrue();
    const field = visitor.page.getByRole('textbox', { name: 'Divider 1', exact: true });
    await field.fill('40');
    await field.press('Enter');
    await expect(async () => (await place()) === 40).toBecomeTrue();
  });

  it('move a divider by one drag, which is one change to undo', async () => {
    const { visitor } = here;
    await divider().scrollIntoViewIfNeeded();
    await visitor.drag(await visitor.middleOf('slider', 'Divider 1'), 0, 40);
    await expect(async () => (await place()) > 42).toBecomeTrue();
    await visitor
      .button(/^Undo: /)
      .first()
      .click();
    await expect(async () => (await place()) === 40).toBecomeTrue();
  });

  it('show a second preview while an export runs in another tab', async () => {
    const { visitor } = here;
    const framing = visitor.page.url();
    await visitor.step('Export');
    await visitor.press('Export to MP4');
    await visitor
      .button(/^Cancel/)
      .first()
      .waitFor();
    const other = await visitor.context.newPage();
    await other.goto(framing);
    await expect(() => hasPoint(other, 'Verrow Short')).toBecomeTrue();
    expect(await visitor.button(/^Cancel/).count()).toBeGreaterThan(0);
    await other.close();
    await visitor
      .button(/^Cancel/)
      .first()
      .click();
    expect(visitor.errors).toEqual([]);
  });

  it('in a dialog have the focus, keep it, and give it back at Escape', async () => {
    const { page } = here.visitor;
    await page.goto('/');
    const opener = page.getByRole('button', { name: 'More for controls' });
    await opener.focus();
    await page.keyboard.press('Enter');
    const dialog = page.getByRole('dialog', { name: 'controls' });
    await dialog.waitFor();
    const focused = (within: string) =>
      page.evaluate((role) => document.activeElement?.closest(role) !== null, within);
    for (let n = 0; n < 8; n++) {
      await expect(() => focused('[role="dialog"]')).toBecomeTrue();
      await page.keyboard.press(n < 7 ? 'Tab' : 'Shift+Tab');
    }
    await page.keyboard.press('Escape');
    await dialog.waitFor({ state: 'detached' });
    await expect(() => opener.evaluate((element) => element === document.activeElement)).toBecomeTrue();
  });

  it('in a long list lie within the page, which stays where it is', async () => {
    const { page } = here.visitor;
    await page.getByRole('listitem', { name: 'controls' }).getByRole('link').click();
    await page.getByRole('link', { name: /^Framing:/ }).click();
    await here.visitor.button('Play').waitFor();
    await page.keyboard.press('?');
    const dialog = page.getByRole('dialog', { name: 'Keys' });
    await dialog.waitFor();
    const { y, height } = (await dialog.boundingBox())!;
    const { height: room } = page.viewportSize()!;
    expect([y >= 0, y + height <= room]).toEqual([true, true]);
    expect(
      await page.evaluate(
        () =>
          [...document.querySelectorAll('*')].filter(
            (one) => one.scrollTop > 0 && getComputedStyle(one).overflowY === 'hidden',
          ).length,
      ),
    ).toBe(0);
    await page.keyboard.press('Escape');
    await dialog.waitFor({ state: 'detached' });
  });
});
