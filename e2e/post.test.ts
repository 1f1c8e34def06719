import { readFileSync } from 'node:fs';
import { faultsOf } from '../tests/axe';
import { filmed } from '../tests/make-filmed';
import { atTheApp, type Visitor } from './app';

/** Does what a person does at an outlet's page, in a page of its own. */
async function atBoard({ context }: Visitor, outlet: string): Promise<string> {
  const page = await context.newPage();
  await page.goto(`/outlets/${outlet}/`);
  const text = await page.locator('main').innerText();
  await page.close();
  return text;
}

describe('a day of posting on a phone', () => {
  const here = atTheApp({ touch: true });
  let visitor: Visitor;
  const cell = (canvas: string, outlet: string, stand: string | RegExp) =>
    visitor.has(
      'button',
      new RegExp(`^${canvas} to ${outlet}: ${stand instanceof RegExp ? stand.source : stand}$`),
    );

  beforeAll(async () => {
    ({ visitor } = here);
    await visitor.bringIn(filmed('posted', 'null', { seconds: 2 }));
    await visitor.step('Canvas');
    await visitor.press('Add a canvas');
    await visitor.page.getByRole('radio', { name: 'Tesselle Square', exact: true }).click();
    await visitor.step('Export');
    await visitor.setBitRate('3', 'all');
    await visitor.press('Export all 2 in one go');
    await visitor.button('Download').nth(1).waitFor({ timeout: 180_000 });
    await visitor.step('Post');
  });

  it('signs in to outlets, as a person and as a page, and comes back to where it was', async () => {
    await visitor.tap('button', /^Verrow Short to Verrow: /);
    await visitor.signIn('Verrow', 'odlin');
    await visitor.signIn('Verrow', 'windle');
    await visitor.has('radio', 'Odlin Marrable');
    await visitor.has('button', 'Post to Verrow as Kite Day at Windle Bay');
    await visitor.tap('radio', 'Odlin Marrable');
    await visitor.has('button', 'Post to Verrow as Odlin Marrable');
    await visitor.tap('button', /^Tesselle Square to Tesselle: /);
    await visitor.signIn('Tesselle', 'windle');
    expect(await faultsOf(visitor.page)).toEqual([]);
  });

  it('says what keeps a post back, and mends it for one outlet alone', async () => {
    await visitor.tap('button', /^Verrow Short to Verrow: /);
    await visitor.sees('Kept back: Required tag');
    await visitor.tap('radio', 'No');
    await visitor.page.getByRole('checkbox', { name: 'Other words for Verrow' }).tap();
    await visitor.type('Title', 'Kites, upright');
    await visitor.tap('button', 'Add #upright');
    await cell('Verrow Short', 'Verrow', 'ready');
    await visitor.tap('button', /^Tesselle Square to Tesselle: /);
    expect(await visitor.value('Title')).toBe('posted');
  });

  it('posts privately, shows what a viewer gets, and publishes with one tap', async () => {
    await visitor.tap('button', /^Verrow Short to Verrow: /);
    await visitor.tap('button', 'Post to Verrow as Odlin Marrable');
    await visitor.sees('“Kites, upright” is up on Verrow. Only you see it.', 90_000);
    await cell('Verrow Short', 'Verrow', 'up');
    await visitor.sees(/^A viewer gets 1080×1920 in /, 60_000);
    await visitor.tap('button', 'See the worst frame');
    const divider = visitor.page.getByRole('slider', { name: /^Divider: As sent/ });
    await divider.scrollIntoViewIfNeeded();
    expect(await faultsOf(visitor.page)).toEqual([]);
    await visitor.tap('button', 'Publish');
    await visitor.sees('“Kites, upright” is up on Verrow. Everybody sees it.');
    expect(await atBoard(visitor, 'verrow')).toContain('Public');
  });

  it('keeps one for later on the server, and calls it back', async () => {
    await visitor.tap('button', /^Tesselle Square to Tesselle: /);
    await visitor.tap('radio', 'Later');
    await visitor.tap('button', /^Schedule for Tesselle as /);
    await visitor.sees(/^It goes out on \d{4}-\d\d-\d\d at \d\d:00/, 60_000);
    await cell('Tesselle Square', 'Tesselle', 'waits');
    await visitor.page.reload();
    await visitor.sees(/^It goes out on /);
    await visitor.tap('button', 'Cancel this post');
    await visitor.page.getByText(/^It goes out on /).waitFor({ state: 'hidden' });
    expect(await atBoard(visitor, 'tesselle')).toContain('Nothing is posted here');
  });

  it('is told when an outlet took its leave back, and goes on once signed in again', async () => {
    await visitor.page.evaluate(() =>
      fetch('/outlets/tesselle/weather', {
        method: 'POST',
        body: new URLSearchParams({ tokens: 'withdraw' }),
      }),
    );
    await visitor.tap('radio', 'Now');
    await visitor.tap('button', /^Post to Tesselle as /);
    await visitor.sees(/^What you allowed was taken back at the outlet\. Sign in again below/, 60_000);
    await cell('Tesselle Square', 'Tesselle', 'needs you');
    await visitor.page.goto('/accounts');
    await visitor.sees('What you allowed was taken back at the outlet.');
    expect(await faultsOf(visitor.page)).toEqual([]);
    await visitor.page.goBack();
    await visitor.tap('button', /^Tesselle Square to Tesselle: /);
    await visitor.page
      .getByRole('button', { name: /^Sign in again$/ })
      .first()
      .tap();
    await visitor.page.getByLabel('Name', { exact: true }).fill('windle');
    await visitor.page.getByLabel('Password').fill('kite-day');
    await visitor.press('Sign in and allow');
    await visitor.tap('button', 'Try again');
    await visitor.sees('“posted” is up on Tesselle. Only you see it.', 90_000);
  });

  it('takes one down', async () => {
    await visitor.tap('button', 'Take it down from Tesselle');
    await visitor.sees('“posted” was taken down from Tesselle.');
    expect(await atBoard(visitor, 'tesselle')).toContain('Nothing is posted here');
    expect(visitor.errors).toEqual([]);
  });

  it('finds each of them in the history, and saves it as CSV', async () => {
    await visitor.page.goto('/history');
    await visitor.sees('2 posts');
    await visitor.page.getByRole('article', { name: 'Kites, upright, Verrow: Up' }).waitFor();
    await visitor.page.getByLabel('Search', { exact: true }).fill('down tesselle');
    await visitor.sees('1 post of 2');
    expect(await faultsOf(visitor.page)).toEqual([]);
    await visitor.page.getByLabel('Search', { exact: true }).fill('');
    const [download] = await Promise.all([
      visitor.page.waitForEvent('download'),
      visitor.press('Save as CSV'),
    ]);
    const text = readFileSync(await download.path(), 'utf8');
    expect(text.split('\r\n')[0]).toMatch(/^outlet,account,state,title,/);
    expect(text).toMatch(/Verrow,Odlin Marrable,up,"Kites, upright"/);
    expect(visitor.errors).toEqual([]);
  });
});
