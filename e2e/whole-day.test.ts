import type { Page } from 'playwright-core';
import { faultsOf } from '../tests/axe';
import { makeClip } from '../tests/make-clip';
import { drawn } from '../tests/soak';
import { atTheApp, PHONE, type Visitor, WIDE } from './app';

type Role = 'button' | 'radio' | 'checkbox' | 'link';
type Name = string | RegExp;

/** A person who uses nothing but a finger, or nothing but the keyboard. */
interface Hand {
  press(role: Role, name: Name): Promise<void>;
  write(field: string, text: string): Promise<void>;
}

const found = (page: Page, role: Role, name: Name) =>
  page.getByRole(role, { name, exact: typeof name === 'string' }).first();

const finger = (page: Page): Hand => ({
  async press(role, name) {
    const part = found(page, role, name);
    await part.scrollIntoViewIfNeeded();
    await part.tap();
  },
  async write(field, text) {
    const input = page.getByLabel(field, { exact: true });
    await input.tap();
    await input.fill(text);
  },
});

const keyboard = (page: Page): Hand => ({
  async press(role, name) {
    const part = found(page, role, name);
    await part.waitFor();
    // It must be one that the tab key comes to.
    await part.focus();
    expect(
      await part.evaluate((own) => own === document.activeElement && (own as HTMLElement).tabIndex >= 0),
    ).toBe(true);
    await page.keyboard.press('Enter');
  },
  async write(field, text) {
    await page.getByLabel(field, { exact: true }).focus();
    await page.keyboard.press('ControlOrMeta+a');
    await page.keyboard.type(text);
  },
});

/** Everything that a day of posting brings, each canvas to its outlet. */
const CANVASES = ['Verrow Short', 'Tesselle Vanishing', 'Commonfold Wide'] as const;

const HANDS = [
  ['by touch on a phone', PHONE, true, finger],
  ['by the keyboard alone on a wide page', WIDE, false, keyboard],
] as const;

describe.each(drawn(HANDS, 1))('a whole day %s', (_, viewport, touch, handOf) => {
  const here = atTheApp({ viewport, touch });
  let visitor: Visitor;
  let hand: Hand;

  const open = (canvas: string, outlet: string) =>
    hand.press('button', new RegExp(`^${canvas} to ${outlet}: `));
  const page = async (title: string) => {
    const back = visitor.button('Job sheet');
    if (await back.isVisible().catch(() => false)) await hand.press('button', 'Job sheet');
    await hand.press('link', new RegExp(`^${title}:`));
    await visitor.page.getByRole('heading', { name: title, level: 1 }).waitFor();
  };
  const signIn = async (outlet: string, login: string) => {
    await hand.press('button', `Sign in to ${outlet}`);
    await hand.write('Name', login);
    await hand.write('Password', 'kite-day');
    await hand.press('button', 'Sign in and allow');
    await visitor.page.waitForURL(/signed-in=/);
  };
  const blow = (outlet: string, weather: string) =>
    visitor.page.evaluate(
      ([at, now]) =>
        fetch(`/outlets/${at}/weather`, { method: 'POST', body: new URLSearchParams({ weather: now! }) }),
      [outlet, weather] as const,
    );

  beforeAll(async () => {
    ({ visitor } = here);
    hand = handOf(visitor.page);
    // Easily encoded: what counts here is that it is too long for one outlet.
    await visitor.bringIn(makeClip('a-day.mp4', { size: '1920x1080', rate: '3', seconds: 15.5 }));
  });

  it('makes three canvases into files, one of them too long on purpose', async () => {
    await page('Canvas');
    for (const canvas of CANVASES.slice(1)) {
      await hand.press('button', 'Add a canvas');
      await hand.press('radio', canvas);
    }
    await hand.press('button', /^Work on Tesselle Vanishing/);
    await page('Check');
    await hand.press('button', /^Override “Length”/);
    await hand.write('Why “Length” may pass', 'to see what they say');
    await hand.press('button', 'Override “Length”');
    await page('Export');
    await hand.press('button', 'Export all 3 in one go');
    await visitor.button('Download').nth(2).waitFor({ timeout: 400_000 });
  });

  it('signs in to three outlets as two accounts', async () => {
    await page('Post');
    await open('Verrow Short', 'Verrow');
    await signIn('Verrow', 'odlin');
    await open('Tesselle Vanishing', 'Tesselle');
    await signIn('Tesselle', 'windle');
    await open('Commonfold Wide', 'Commonfold');
    await signIn('Commonfold', 'odlin');
    expect(await faultsOf(visitor.page)).toEqual([]);
  });

  it('writes the words once, and otherwise where an outlet wants it', async () => {
    await hand.write('Title', 'Red kites over the bay');
    await hand.write('Key phrase', 'kite day');
    await hand.press('button', 'Put it first in the title');
    expect(await visitor.value('Title')).toBe('kite day: Red kites over the bay');
    for (const [canvas, outlet, title] of [
      ['Verrow Short', 'Verrow', 'Kites, upright'],
      ['Tesselle Vanishing', 'Tesselle', 'Gone by tomorrow'],
      ['Commonfold Wide', 'Commonfold', 'Kites without sound'],
    ] as const) {
      await open(canvas, outlet);
      await hand.press('checkbox', `Other words for ${outlet}`);
      await hand.write('Title', title);
    }
    await open('Verrow Short', 'Verrow');
    await hand.press('button', 'Add #upright');
    await hand.press('button', 'Say that it is not made for children');
    expect(await visitor.value('Title')).toBe('Kites, upright');
  });

  it('posts one on a line that breaks, looks at it, sees what a viewer gets, and publishes it', async () => {
    await blow('verrow', 'dropping');
    await hand.press('button', 'Post to Verrow as Odlin Marrable');
    await visitor.sees('“Kites, upright” is up on Verrow. Only you see it.', 200_000);
    await blow('verrow', 'fair');
    await visitor.sees(/^A viewer gets 1080×1920 in /, 60_000);
    await hand.press('button', 'See the worst frame');
    await visitor.page.getByRole('slider', { name: /^Divider: As sent/ }).waitFor();
    await hand.press('button', 'Publish');
    await visitor.sees('“Kites, upright” is up on Verrow. Everybody sees it.');
    expect(await faultsOf(visitor.page)).toEqual([]);
  });

  it('keeps one for later, changes its words while it waits, and finds it in the week', async () => {
    await open('Commonfold Wide', 'Commonfold');
    await hand.write('Address of the long video', 'https://longshelf.example/kite-day');
    await hand.press('radio', 'Later');
    await hand.press('button', /^Schedule for Commonfold as /);
    await visitor.sees(/^It goes out on \d{4}-\d\d-\d\d at \d\d:00/, 60_000);
    await hand.write('Title', 'Kites, later');
    await hand.press('button', 'Update it with the changes below');
    await visitor.sees('“Kites, later” waits to go to Commonfold.');
    await hand.press('button', 'See the week');
    await visitor.page.getByRole('article', { name: /Kites, later$/ }).waitFor();
    expect(await faultsOf(visitor.page)).toEqual([]);
    await hand.press('button', 'Change it: Kites, later');
  });

  it('is refused for its length, and mends it from the refusal', async () => {
    await open('Tesselle Vanishing', 'Tesselle');
    await hand.press('radio', 'Friends');
    await hand.press('button', /^Post to Tesselle as /);
    await visitor.sees('Tesselle refused “Gone by tomorrow”.', 60_000);
    await hand.press('button', 'Trim to 15 s');
    await hand.press('button', 'Export it again');
    await hand.press('button', 'Export this canvas');
    await visitor.button('Download').nth(3).waitFor({ timeout: 200_000 });
    await page('Post');
    await hand.press('radio', 'Now');
    await hand.press('button', /^Post to Tesselle as /);
    await visitor.sees('“Gone by tomorrow” is up on Tesselle. Your friends there see it.', 100_000);
  });

  it('takes one down, and has all of it in its history', async () => {
    await hand.press('button', 'Take it down from Tesselle');
    await visitor.sees('“Gone by tomorrow” was taken down from Tesselle.');
    await visitor.page.goto('/history');
    await visitor.page.getByRole('article', { name: 'Kites, upright, Verrow: Up' }).waitFor();
    await visitor.page.getByRole('article', { name: 'Gone by tomorrow, Tesselle: Taken down' }).waitFor();
    await visitor.page.getByRole('article', { name: 'Kites, later, Commonfold: Waits' }).waitFor();
    expect(visitor.errors).toEqual([]);
  });
});
