import type { Page } from 'playwright-core';
import { makeClip } from '../tests/make-clip';
import { SEED, seeded, soakFigure, trials } from '../tests/soak';
import { Profile } from './profile';
import { storedNames } from './stored-names';

const TRIALS = trials(2, 100);
const BRINGINGS = trials(1, 20);
/** Longest that a film is brought in before the page is ended, in milliseconds. */
const LATEST_BRINGING = 3000;
/** Longest that a person works before the page is ended, in milliseconds. */
const LATEST = 2500;

const profile = new Profile();
let job: string;

beforeAll(async () => {
  await profile.open();
  job = await profile.bringIn(makeClip('killed.mp4', { size: '640x360', seconds: 3 }));
});
afterAll(() => profile.close());

/** State of a job for whoever opens it, as one text. */
type State = string;

/**
 * Reads the job that the page holds and how many commands made it: asked of the page itself after each
 * command.
 */
async function stateOf(page: Page): Promise<State> {
  const fields = ['From left', 'From top', 'Zoom'];
  const values = [];
  for (const field of fields) values.push(await page.getByLabel(field, { exact: true }).inputValue());
  const undo = await page.getByRole('button', { name: /^Undo/ }).getAttribute('aria-label');
  const redo = await page.getByRole('button', { name: /^Redo/ }).getAttribute('aria-label');
  return [...values, undo, redo].join(' | ');
}

const openFraming = (): Promise<Page> =>
  profile.openAt(`/job/${job}/frame`, (page) =>
    page.getByLabel('From left', { exact: true }).waitFor({ timeout: 60_000 }),
  );

const cards = (page: Page) => page.getByRole('list', { name: 'Jobs' }).getByRole('listitem');
/** Takes the values of fields out of a state, without the undo history. */
const valuesOf = (state: State): string => state.split(' | ').slice(0, 3).join();

const openHome = (): Promise<Page> =>
  profile.openAt('/', (page) => cards(page).first().waitFor({ timeout: 60_000 }));
const jobsOn = (page: Page): Promise<number> => cards(page).count();

/** Works on the framing at random, and notes every state that a command left, until it is ended. */
async function work(page: Page, random: () => number, seen: State[], ended: () => boolean): Promise<void> {
  const acts = [
    () => page.keyboard.press('ArrowRight'),
    () => page.keyboard.press('Shift+ArrowLeft'),
    () => page.keyboard.press('+'),
    () => page.keyboard.press('Control+z'),
    () => page.keyboard.press('Control+Shift+z'),
    async () => {
      const field = page.getByLabel('Zoom', { exact: true });
      await field.fill((1 + random()).toFixed(2));
      await field.press('Enter');
      await field.blur();
    },
    () => page.getByRole('button', { name: 'Put the subject on the left third' }).click(),
    () => page.getByRole('button', { name: 'Put the subject in the middle' }).click(),
  ];
  while (!ended()) {
    await acts[Math.floor(random() * acts.length)]?.();
    seen.push(await stateOf(page));
  }
}

describe('a page that is ended', () => {
  it(`${TRIALS} times at random moments comes back in a state that a command left`, async () => {
    const random = seeded(SEED);
    let commands = 0;
    let last: State | null = null;
    for (let trial = 0; trial < TRIALS; trial++) {
      const page = await openFraming();
      const seen: State[] = [await stateOf(page)];
      // What came back is what was left, or what the one command before the end left.
      if (last !== null) expect(last).toBe(seen[0]);
      let over = false;
      const working = work(page, random, seen, () => over).catch(() => undefined);
      await new Promise((resolve) => setTimeout(resolve, 200 + random() * LATEST));
      over = true;
      await profile.endTab(page);
      await Promise.race([working, new Promise((resolve) => setTimeout(resolve, 1500))]);
      const again = await openFraming();
      const found = await stateOf(again);
      if (!seen.includes(found)) {
        // The last command may have been under way, its state never asked for: one step from it is one that was.
        const beside: State[] = [];
        for (const [step, back] of [
          ['Undo', 'Redo'],
          ['Redo', 'Undo'],
        ] as const) {
          const button = again.getByRole('button', { name: new RegExp(`^${step}`) });
          if (!(await button.isEnabled())) continue;
          await button.click();
          beside.push(valuesOf(await stateOf(again)));
          await again.getByRole('button', { name: new RegExp(`^${back}`) }).click();
          await expect(async () => valuesOf(await stateOf(again)) === valuesOf(found)).toBecomeTrue();
        }
        const values = seen.map(valuesOf);
        expect([values, beside, beside.some((state) => values.includes(state))]).toEqual([
          values,
          beside,
          true,
        ]);
      }
      commands += seen.length - 1;
      last = await stateOf(again);
      await again.close();
    }
    soakFigure(
      'page ended while framing',
      `${TRIALS} ends among ${commands} commands: each came back as a command left it`,
    );
  }, 3_600_000);

  it(`${BRINGINGS} times while a film is brought in has a job that opens or none, and no part of a file`, async () => {
    const random = seeded(SEED);
    const film = makeClip('brought.mp4', { size: '1280x720', seconds: 8, output: ['-crf', '12'] });
    let made = 0;
    for (let trial = 0; trial < BRINGINGS; trial++) {
      const page = await openHome();
      const before = await jobsOn(page);
      const [chooser] = await Promise.all([
        page.waitForEvent('filechooser'),
        page.getByRole('button', { name: 'Bring in a video' }).click(),
      ]);
      void chooser.setFiles(film).catch(() => undefined);
      await new Promise((resolve) => setTimeout(resolve, random() * LATEST_BRINGING));
      await profile.endTab(page);
      const again = await openHome();
      const parts = async () =>
        (await storedNames(again, 'masters')).filter((name) => name.endsWith('.part'));
      await expect(async () => (await parts()).length === 0).toBecomeTrue();
      const after = await jobsOn(again);
      expect([before, before + 1]).toContain(after);
      if (after > before) {
        made++;
        await again.getByRole('listitem', { name: 'brought' }).first().getByRole('link').click();
        await again.getByRole('listitem', { name: 'Size: 1280×720' }).waitFor({ timeout: 60_000 });
      }
      await again.close();
    }
    soakFigure(
      'page ended while a film is brought in',
      `${BRINGINGS} ends: ${made} jobs, each opened, and no part of a file left`,
    );
  }, 3_600_000);
});
