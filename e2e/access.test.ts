import { faultsOf } from '../tests/axe';
import { drawn } from '../tests/soak';
import { atTheApp, PHONE, type Visitor, WIDE } from './app';

const PANELS = ['Place', 'Motion', 'Follow', 'Turn', 'Layout', 'Copy'];
const LAYOUTS = ['Stacked', 'Inset', 'Banded', 'Soft backdrop', 'Turned', 'Single'];

const STEPS = ['Master', 'Canvas', 'Length', 'Framing', 'Words', 'Check', 'Export', 'Post'];

/** The pages of the app, of a job only some steps, with every panel, from the demo. */
async function* pagesOf(visitor: Visitor, steps: readonly string[]): AsyncGenerator<string> {
  const { page } = visitor;
  const settled = (name: string) => page.waitForTimeout(120).then(() => name);
  yield settled('jobs, none yet');
  await visitor.openDemo();
  yield settled('job sheet');
  for (const step of steps) {
    await visitor.step(step);
    yield settled(step);
    if (step === 'Canvas') {
      await visitor.press('Add a canvas');
      yield settled('adding a canvas');
      await page.getByRole('radio', { name: 'Tesselle Square', exact: true }).click();
    }
    if (step === 'Length') {
      for (const tray of ['Shots', 'To length', 'Lists', 'Cut'])
        if (await page.getByRole('radio', { name: tray, exact: true }).isVisible()) {
          await page.getByRole('radio', { name: tray, exact: true }).click();
          yield settled(`length, ${tray}`);
        }
    }
    if (step === 'Words') {
      await visitor.press('Add a block');
      for (const panel of ['Look', 'Place', 'Time', 'Styles', 'Write']) {
        await page.getByRole('radio', { name: panel, exact: true }).click();
        yield settled(`words, ${panel}`);
      }
      await page.getByRole('radio', { name: 'Captions', exact: true }).click();
      for (const panel of ['Bring in', 'Cue', 'Tap', 'All', 'Look', 'Limits']) {
        await page.getByRole('radio', { name: panel, exact: true }).click();
        yield settled(`captions, ${panel}`);
        if (panel !== 'Bring in') continue;
        await page
          .getByLabel('Script: what is spoken')
          .fill('Some are small.\nOthers are as large as a house.');
        await visitor.press('Spread the script over the clip');
      }
      await page.getByRole('radio', { name: 'Cover', exact: true }).click();
      yield settled('cover');
    }
    if (step === 'Framing') {
      for (const panel of PANELS) {
        await page.getByRole('radio', { name: panel, exact: true }).click();
        yield settled(`framing, ${panel}`);
        if (panel !== 'Layout') continue;
        for (const layout of LAYOUTS) {
          await page.getByRole('radio', { name: layout, exact: true }).click();
          yield settled(`layout, ${layout}`);
        }
      }
    }
  }
  await page.goto('/rules');
  yield settled('rule sheets');
  await page.goto('/rules/verrow');
  yield settled('a rule sheet');
  await page.goto('/');
  yield settled('jobs');
}

describe.each([
  // Some steps are judged, and all of them in the long proof.
  ['a phone', PHONE, 'light', drawn(STEPS, 2)],
  ['a wide page', WIDE, 'dark', drawn(STEPS, 1)],
] as const)('on %s', (_, viewport, colorScheme, steps) => {
  const here = atTheApp({ viewport });

  // Judged from outside: axe-core, WCAG 2.2 A and AA.
  it('nothing keeps anyone out, on any page and panel', async () => {
    await here.visitor.page.emulateMedia({ colorScheme });
    const faults: string[] = [];
    for await (const name of pagesOf(here.visitor, steps))
      faults.push(...(await faultsOf(here.visitor.page)).map((fault) => `${name}: ${fault}`));
    expect(faults).toEqual([]);
  }, 240_000);
});
