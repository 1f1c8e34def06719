/** Takes the pictures of docs/screenshots from the demo: `npx tsx demo/make-shots.ts`, after `npm run build`. */
import { mkdirSync } from 'node:fs';
import { TestServer, Visitor, WIDE } from '../e2e/app';

const FOLDER = 'docs/screenshots';

async function main(): Promise<void> {
  mkdirSync(FOLDER, { recursive: true });
  const server = new TestServer(0, ['--lan', '--lan-port', '0']);
  await server.start();
  const visitor = await Visitor.arrive(server.origin);
  const { page } = visitor;
  const shoot = async (name: string) => {
    // Stills and pictures come in their own time.
    await page.waitForTimeout(2500);
    await page.screenshot({ path: `${FOLDER}/${name}.png` });
  };
  await visitor.openDemo();
  await shoot('sheet');
  await visitor.step('Master');
  await visitor.page.getByRole('listitem', { name: /^Proxy: / }).waitFor({ timeout: 90_000 });
  await shoot('master');
  await visitor.step('Canvas');
  await addCanvases(visitor);
  await shoot('canvas');
  await visitor.step('Length');
  await visitor.type('First frame kept', '00:00:06:00');
  await visitor.type('Last frame kept', '00:00:23:23');
  await visitor.page.getByRole('heading', { name: 'Length', level: 1 }).click();
  for (let i = 0; i < 18; i++) await page.keyboard.press('Shift+w');
  await visitor.press('Split here');
  await page.getByRole('img', { name: 'The master', exact: true }).scrollIntoViewIfNeeded();
  await shoot('length');
  await visitor.step('Framing');
  await visitor.press(/^Shot 2,/);
  await page.keyboard.press('Shift+w');
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+w');
  await visitor.press('Work on Verrow Short');
  await shoot('framing');
  await page.getByRole('radio', { name: 'Follow', exact: true }).click();
  await visitor.press(/^Follow (all|the) /);
  await page.getByRole('button', { name: 'Stop following' }).waitFor();
  await page.getByRole('button', { name: 'Stop following' }).waitFor({ state: 'hidden', timeout: 240_000 });
  await shoot('follow');
  await visitor.press('See it whole');
  await shoot('whole');
  await visitor.press('Back');
  await shootWords(visitor, shoot);
  await visitor.step('Check');
  await shoot('check');
  await visitor.press('Add #upright');
  await visitor.step('Export');
  await visitor.press('Export all 3 in one go');
  await page.getByRole('button', { name: 'Download' }).nth(2).waitFor({ timeout: 400_000 });
  await shoot('export');
  await visitor.press('To a phone');
  await visitor.press('Show a code to scan');
  await page.getByRole('img', { name: /^Code for / }).waitFor();
  await shoot('hand-off');
  await visitor.step('Export');
  await page.getByRole('radio', { name: 'Verrow Short' }).click();
  await visitor.press('Post it');
  await visitor.signIn('Verrow', 'odlin');
  await visitor.press('Post to Verrow as Odlin Marrable');
  await visitor.sees(/^A viewer gets/, 90_000);
  await shoot('post');
  await visitor.press('See the week');
  await shoot('schedule');
  await page.goto('/outlets/verrow/');
  await shoot('outlet');
  await page.goto('/');
  await visitor.sees(/Checks passed|Warnings|Something is stopped/);
  await shoot('jobs');
  await visitor.press('Rule sheets of the outlets');
  await shoot('rules');
  await visitor.leave();
  const wide = await Visitor.arrive(server.origin, WIDE);
  await wide.openDemo();
  await wide.page.getByRole('link', { name: /^Master:/ }).click();
  await wide.page.getByRole('listitem', { name: /^Proxy: / }).waitFor({ timeout: 90_000 });
  await wide.page.getByRole('link', { name: /^Canvas:/ }).click();
  await addCanvases(wide);
  await wide.page.getByRole('link', { name: /^Framing:/ }).click();
  await wide.press(/^Shot 2,/);
  for (let i = 0; i < 6; i++) await wide.page.keyboard.press('Shift+w');
  await wide.page.waitForTimeout(2500);
  await wide.page.screenshot({ path: `${FOLDER}/framing-wide.png` });
  await wide.page.getByRole('link', { name: /^Length:/ }).click();
  await wide.page.getByRole('radio', { name: 'To length', exact: true }).click();
  await wide.type('Longest part', '10');
  await wide.press('Split into parts');
  await wide.page.getByRole('link', { name: /^Check:/ }).click();
  await wide
    .button(/^Show .*Verrow Short/)
    .first()
    .waitFor();
  await wide.page.waitForTimeout(2500);
  await wide.page.screenshot({ path: `${FOLDER}/check-wide.png` });
  await wide.leave();
  await server.stop();
}

/** A banded square with its words, and captions from a script. */
async function shootWords(visitor: Visitor, shoot: (name: string) => Promise<unknown>): Promise<void> {
  const { page } = visitor;
  await visitor.step('Words');
  await page.getByRole('radio', { name: 'Tesselle Square' }).click();
  await visitor.press(/^Banded clip/);
  await page.getByLabel('Headline above').fill('Kite Day');
  await page.getByLabel('Line below').fill('Windle Bay, Saturday from noon');
  await visitor.press('Make it banded');
  await shoot('words');
  await page.getByRole('radio', { name: 'Verrow Short' }).click();
  await page.getByRole('radio', { name: 'Captions' }).click();
  await page.getByRole('radio', { name: 'Bring in' }).click();
  await page.getByLabel('Script: what is spoken').fill(SCRIPT);
  await visitor.press('Spread the script over the clip');
  await page.getByRole('radio', { name: 'Cue', exact: true }).click();
  await visitor.press(/^Caption 2/);
  await shoot('captions');
}

/** Two canvases more, from the canvas page. */
async function addCanvases(visitor: Visitor): Promise<void> {
  for (const name of ['Tesselle Square', 'Tesselle Portrait']) {
    await visitor.press('Add a canvas');
    await visitor.page.getByRole('radio', { name, exact: true }).click();
  }
}

/** Text that might be said over the demo. */
const SCRIPT = `Every spring the wind comes back to the bay, and with it come the kites.
Some are small.
Others are as large as a house, and it takes six people to hold them down.
The day begins at noon, and ends when the wind does.`;

void main();
