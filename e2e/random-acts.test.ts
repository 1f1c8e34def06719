import type { Locator, Page } from 'playwright-core';
import { SEED, seeded, soakFigure, trials } from '../tests/soak';
import { atTheApp } from './app';

const ACTS = trials(25, 1000);
const STEPS = ['master', 'cut', 'canvas', 'frame', 'words', 'check', 'export', 'post', 'whole'];
const KEYS = [
  ...['Space', 'Enter', 'Tab', 'Escape', 'Delete', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'PageDown'],
  ...['q', 'w', 'a', 'b', 'c', '+', '-', '?', 'Control+z', 'Control+Shift+z'],
];
const TEXTS = [
  '12',
  '0',
  '-5',
  'abc',
  '1,5',
  '999999',
  '00:00:05:00',
  '{x}',
  '#a b',
  '👩‍👩‍👧',
  'x'.repeat(3000),
  '',
];
const CONTROLS = ['button', 'radio', 'checkbox', 'slider'].map((role) => `[role=${role}]:visible`).join();
/** Names of controls that leave the page, or open what a page cannot close. */
const LEAVING = /All jobs|Sign in|Save|file|Bring|Download|Open|Find|Print|CSV|JSON|Delete job/i;
/** Patience with a control, in milliseconds: one that is gone or covered by then is left. */
const WAIT_MS = 1000;

const here = atTheApp();

/** Does one thing that a hand could do on a page. @returns what it was, in words. */
async function act(page: Page, random: () => number): Promise<string> {
  const pick = <T>(all: readonly T[]): T | undefined => all[Math.floor(random() * all.length)];
  const kind = random();
  if (kind < 0.15) {
    const key = pick(KEYS) as string;
    await page.keyboard.press(key);
    return key;
  }
  if (kind < 0.3) {
    const field = pick<Locator>(await page.locator('input:visible, textarea:visible').all());
    const text = pick(TEXTS) as string;
    await field?.fill(text, { timeout: WAIT_MS });
    await field?.press('Enter', { timeout: WAIT_MS });
    return `types ${text.slice(0, 20)}`;
  }
  const control = pick<Locator>(await page.locator(CONTROLS).all());
  const label = await control?.getAttribute('aria-label', { timeout: WAIT_MS });
  const name = label ?? (await control?.innerText({ timeout: WAIT_MS })) ?? '';
  if (!LEAVING.test(name)) await control?.click({ timeout: WAIT_MS });
  return `presses ${name}`;
}

it(`${ACTS} random acts on a job end in no error, and leave one that opens`, async () => {
  const { visitor } = here;
  const { page } = visitor;
  const random = seeded(SEED);
  const done: string[] = [];
  await visitor.openDemo();
  for (let n = 0; n < ACTS; n++) {
    if (n % 25 === 0 || !page.url().includes('/job/kite-day')) {
      await page.goto(`/job/kite-day/${STEPS[Math.floor(random() * STEPS.length)]}`);
      await page.getByRole('heading', { level: 1 }).first().waitFor();
    }
    done.push(await act(page, random).catch(() => 'nothing'));
    expect([visitor.errors, done.slice(-5)]).toEqual([[], done.slice(-5)]);
    expect(await page.getByText('That change was not made').count()).toBe(0);
  }
  await page.goto('/job/kite-day');
  await visitor.sees('Saved in this browser');
  soakFigure('random acts on a job', `${ACTS} presses, keys and words: no error, and the job opens`);
}, 3_600_000);
