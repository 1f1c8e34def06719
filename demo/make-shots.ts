/** Takes the pictures of docs/screenshots from the demo: `npx tsx demo/make-shots.ts`, after `npm run build`. */
import { mkdirSync } from 'node:fs';
import { TestServer, Visitor, WIDE } from '../e2e/app';

const FOLDER = 'docs/screenshots';

async function main(): Promise<void> {
  mkdirSync(FOLDER, { recursive: true });
  const server = new TestServer();
  await server.start();
  const visitor = await Visitor.arrive(server.origin);
  const { page } = visitor;
  const shoot = async (name: string) => {
    // Stills and pictures come in their own time.
    await page.waitForTimeout(2500);
    await page.screenshot({ path: `${FOLDER}/${name}.png` });
  };
  await shoot('jobs');
  await visitor.openDemo();
  await shoot('sheet');
  await visitor.step('Canvas');
  await shoot('canvas');
  await visitor.step('Length');
  await visitor.type('First frame kept', '00:00:06:00');
  await visitor.type('Last frame kept', '00:00:23:23');
  await shoot('length');
  await visitor.step('Framing');
  await visitor.press(/^Shot 2,/);
  await page.keyboard.press('Shift+w');
  for (let i = 0; i < 5; i++) await page.keyboard.press('Shift+w');
  await shoot('framing');
  await visitor.step('Check');
  await shoot('check');
  await visitor.press('Add #upright');
  await visitor.step('Export');
  await visitor.exportClip();
  await shoot('export');
  await visitor.press('Post it');
  await visitor.press('Post to Verrow');
  await visitor.sees(/Verrow took/, 60_000);
  await shoot('post');
  await page.goto('/outlets/verrow/');
  await shoot('outlet');
  await visitor.leave();
  const wide = await Visitor.arrive(server.origin, WIDE);
  await wide.openDemo();
  await wide.page.waitForTimeout(2000);
  await wide.page.screenshot({ path: `${FOLDER}/sheet-wide.png` });
  await wide.page.getByRole('link', { name: /^Length:/ }).click();
  await wide.page.waitForTimeout(2500);
  await wide.page.screenshot({ path: `${FOLDER}/length-wide.png` });
  await wide.page.getByRole('link', { name: /^Framing:/ }).click();
  await wide.press(/^Shot 2,/);
  for (let i = 0; i < 6; i++) await wide.page.keyboard.press('Shift+w');
  await wide.page.waitForTimeout(2500);
  await wide.page.screenshot({ path: `${FOLDER}/framing-wide.png` });
  await wide.leave();
  await server.stop();
}

void main();
