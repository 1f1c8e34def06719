import { readFileSync } from 'node:fs';
import { readSheetFile } from '../src/core/interchange/sheet-file';
import { makeClip } from '../tests/make-clip';
import { atTheApp, type Visitor, WIDE } from './app';

const film = makeClip('long-edit.mp4', { size: '640x360', rate: '6', seconds: 50 });

/** Goes to the list of rule sheets. */
async function toRules(visitor: Visitor): Promise<void> {
  await visitor.page.goto('/rules');
  await visitor.has('listitem', /^Verrow: /);
}

/** Gives the form's first placement another longest clip, and looks at what that changes. */
async function limitTo(visitor: Visitor, seconds: number): Promise<void> {
  await toRules(visitor);
  await visitor.tap('button', 'Change the rules of Verrow');
  await visitor.type('Longest', String(seconds));
  await visitor.tap('button', 'See what this changes');
  await visitor.has('listitem', new RegExp(`^Short, length: Longest: 60 s, now ${seconds} s$`));
}

describe('rule sheets on a phone', () => {
  const here = atTheApp({ touch: true });
  let visitor: Visitor;
  let jobs: string[];
  beforeAll(async () => {
    ({ visitor } = here);
    jobs = [await visitor.bringIn(film)];
    // The pass is needed by both.
    await visitor.step('Master');
    await visitor.page.getByRole('listitem', { name: /^Proxy: / }).waitFor({ timeout: 90_000 });
    await visitor.page.goto('/');
    jobs.push(await visitor.bringIn(film));
  });
  const lengthOf = async (job: string) => {
    await visitor.page.goto(`/job/${job}/check`);
    await visitor.has('listitem', /^Length: /);
    return visitor.finding('Length');
  };

  it('a shorter limit stops clips of two jobs, and tells of them before it is kept', async () => {
    expect(await lengthOf(jobs[0] ?? '')).toBe('Length: note');
    // A page that is left at once may leave its last change behind.
    await expect(async () => JSON.stringify(await visitor.stored()).includes('judged')).toBecomeTrue();
    await limitTo(visitor, 45);
    const worse = visitor.page.getByRole('list', { name: 'Judged worse than before' });
    await worse.getByRole('listitem').nth(1).waitFor({ timeout: 60_000 });
    expect(await worse.getByRole('listitem').count()).toBe(2);
    expect(await worse.getByText(/^Length: 50(\.\d+)? s, limit 45 s$/).count()).toBe(2);
    await visitor.tap('button', 'Save these rules');
    await visitor.has('listitem', 'Verrow: Changed by you');
    // The list stays once the rules are kept: each is a tap from its fix.
    const done = visitor.page.getByRole('region', { name: 'What the last change did' });
    await done.getByText('Judged worse than before: 2').waitFor({ timeout: 60_000 });
    await done
      .getByRole('button', { name: /^Go to .*: Length$/ })
      .first()
      .tap();
    await visitor.has('button', 'Trim to 45 s');
    for (const job of [...jobs].reverse()) expect(await lengthOf(job)).toBe('Length: stop');
    // The first was judged by the rules before.
    await visitor.sees('The rules of Verrow changed since this job was last judged.');
    await visitor.sees(/Short, length: Longest: 45 s, before 60 s/);
    await visitor.tap('button', 'Seen');
    await visitor.page.getByText('The rules of Verrow changed').waitFor({ state: 'hidden' });
    await visitor.page.goto('/');
    await expect(
      async () => (await visitor.page.getByText('Something is stopped').count()) === 2,
    ).toBecomeTrue();
  });

  it('both are mended from the grid, and undo takes that back', async () => {
    const [first = '', second = ''] = jobs;
    await visitor.page.goto(`/job/${first}/canvas`);
    await visitor.press('Add a canvas');
    await visitor.page.getByRole('radio', { name: 'Tesselle Square', exact: true }).click();
    await visitor.step('Check');
    await visitor.tap('button', /^Show .*Verrow Short: 3 stops/);
    await visitor.tap('button', 'Trim to 45 s');
    await expect(async () => (await visitor.finding('Length')) !== 'Length: stop').toBecomeTrue();
    await visitor.tap('button', /^Undo: trim/);
    await expect(async () => (await visitor.finding('Length')) === 'Length: stop').toBecomeTrue();
    await visitor.tap('button', /^Redo: trim/);
    await expect(async () => (await visitor.finding('Length')) !== 'Length: stop').toBecomeTrue();
    await visitor.page.goto(`/job/${second}/check`);
    await visitor.tap('button', 'Trim to 45 s');
    await expect(async () => (await visitor.finding('Length')) !== 'Length: stop').toBecomeTrue();
    await visitor.tap('button', /^Undo: trim/);
  });

  it('applies the safe fixes of all clips as one step', async () => {
    await visitor.page.goto(`/job/${jobs[0]}/check`);
    await visitor.tap('button', 'Safe fixes for all clips');
    await visitor.sees('1 safe fix, as one step:');
    await visitor.tap('button', 'Apply them');
    await visitor.sees(/1 fix was applied/);
    await visitor.has('listitem', 'Required tag: pass');
    await visitor.tap('button', 'Undo: apply the fixes');
    await visitor.has('listitem', 'Required tag: stop');
  });

  it('saves what was found as a page to print and as CSV', async () => {
    const saved = async (kind: string) => {
      const [download] = await Promise.all([
        visitor.page.waitForEvent('download'),
        visitor.press(`Save the report as ${kind}`),
      ]);
      return { name: download.suggestedFilename(), text: readFileSync((await download.path())!, 'utf8') };
    };
    const page = await saved('Page to print');
    expect(page.name).toBe('long-edit.check.html');
    expect(page.text).toContain('<img src="data:image/jpeg;base64,');
    expect(page.text).toMatch(/<td>Stop<\/td><td>Required tag<\/td>/);
    await visitor.page.goto('/');
    await expect(async () => visitor.button('Save the report as CSV').isEnabled()).toBecomeTrue();
    const table = await saved('CSV');
    expect(table.name).toBe('all-jobs.check.csv');
    expect(table.text).toContain('long edit (again)');
  });

  it('an older version is compared and comes back', async () => {
    await toRules(visitor);
    await visitor.tap('button', 'Versions of the rules of Verrow');
    await visitor.has('listitem', 'Short, length: Longest: 60 s, now 45 s');
    await visitor.tap('button', 'Go back to the one that ships');
    await visitor.has('listitem', /^Verrow: /);
    expect(await lengthOf(jobs[1] ?? '')).toBe('Length: note');
  });

  it('a new sheet with a zone goes out as a file, is removed, and comes in again', async () => {
    await toRules(visitor);
    await visitor.tap('button', 'Write a new sheet');
    await visitor.type('Outlet', 'Wall');
    await visitor.tap('button', 'Overlay zones');
    await visitor.tap('button', 'Add a zone');
    const zone = visitor.page.getByRole('button', { name: 'Zone Controls', exact: true });
    await zone.scrollIntoViewIfNeeded();
    const box = (await zone.boundingBox())!;
    await visitor.swipe({ x: box.x + box.width / 2, y: box.y + box.height / 2 }, 0, -60);
    // What follows at once would be undone together.
    await visitor.page.waitForTimeout(1000);
    await visitor.type('Zone', 'Buttons');
    // 60 of the drawing's 300 rows are a fifth of the canvas.
    // The first of its eight steps is what tells a drag from a tap.
    const top = Number(await visitor.value('From top'));
    expect(top).toBeGreaterThanOrEqual(65);
    expect(top).toBeLessThan(68);
    await visitor.tap('button', 'Undo');
    await visitor.has('button', 'Zone Controls');
    await visitor.type('Zone', 'Buttons');
    await visitor.type('Longest', '-3');
    await visitor.has('button', 'Something needs to be fixed first');
    await visitor.type('Longest', '30');
    await visitor.tap('button', 'See what this changes');
    await visitor.tap('button', 'Save these rules');
    await visitor.has('listitem', 'Wall: Your own sheet');
    // A sheet says what an outlet takes, not where it is.
    await visitor.page.goto('/accounts');
    await visitor.tap('button', 'Sign in to Wall');
    await visitor.sees('The server knows no way to Wall.');
    await toRules(visitor);
    const [download] = await Promise.all([
      visitor.page.waitForEvent('download'),
      visitor.press('Save the rules of Wall as a file'),
    ]);
    const file = (await download.path())!;
    const read = readSheetFile(readFileSync(file, 'utf8'));
    expect(read).toMatchObject({
      sheet: {
        name: 'Wall',
        placements: [{ length: { most: 30 }, zones: { phone: [{ name: 'Buttons' }] } }],
      },
    });
    await visitor.tap('button', 'Remove the rules of Wall');
    await visitor.sees('No clip of any job is judged differently.');
    await visitor.tap('button', 'Take Wall out of use');
    await visitor.has('button', 'Bring Wall back');
    expect(await visitor.page.getByRole('listitem', { name: /^Wall: / }).count()).toBe(0);
    await visitor.pick(file, 'Open a rule sheet from a file');
    await visitor.sees(/^Wall is new here/);
    await visitor.tap('button', 'Take the rules of Wall');
    await visitor.has('listitem', 'Wall: Your own sheet');
    await visitor.pick(film, 'Open a rule sheet from a file');
    await visitor.sees(/cannot be taken\. It is not JSON\. Nothing was changed/);
    // Without Verrow's both jobs are judged by nobody.
    await visitor.tap('button', 'Remove the rules of Verrow');
    const worse = visitor.page.getByRole('list', { name: 'Judged worse than before' });
    await worse.getByText('Rule sheet: verrow/short').nth(1).waitFor();
    await visitor.tap('button', 'Leave it');
    await visitor.has('listitem', /^Verrow: /);
  });
});

describe('rule sheets in two tabs', () => {
  const here = atTheApp();

  it('are the same in both: a job that is open in the other is judged by the new ones at once', async () => {
    const { visitor } = here;
    await visitor.bringIn(film);
    await visitor.step('Check');
    await expect(async () => (await visitor.finding('Length')) === 'Length: note').toBecomeTrue();
    const other = await visitor.context.newPage();
    await other.goto('/rules/verrow');
    const longest = other.getByLabel('Longest', { exact: true });
    await longest.fill('45');
    await longest.press('Enter');
    await other.getByRole('button', { name: 'See what this changes' }).click();
    await other.getByRole('button', { name: 'Save these rules' }).click();
    await other.getByRole('listitem', { name: 'Verrow: Changed by you' }).waitFor();
    await expect(async () => (await visitor.finding('Length')) === 'Length: stop').toBecomeTrue();
    await other.close();
  });
});

describe('the grid on a wide page', () => {
  const here = atTheApp({ viewport: WIDE });

  it('shows a dozen clips on four canvases without scrolling sideways', async () => {
    const { visitor } = here;
    await visitor.bringIn(film);
    await visitor.step('Canvas');
    for (const name of ['Tesselle Square', 'Tesselle Portrait', 'Commonfold Wide']) {
      await visitor.press('Add a canvas');
      await visitor.page.getByRole('radio', { name, exact: true }).click();
    }
    await visitor.step('Length');
    await visitor.page.getByRole('radio', { name: 'To length', exact: true }).click();
    await visitor.type('Longest part', '4.5');
    await visitor.press('Split into parts');
    await visitor.sees(/parts were made/);
    await visitor.step('Check');
    const cells = visitor.page.getByRole('button', { name: /^Show long edit/ });
    await expect(async () => (await cells.count()) >= 48).toBecomeTrue();
    const { wide, view } = await visitor.page.evaluate(() => ({
      wide: document.documentElement.scrollWidth,
      view: window.innerWidth,
    }));
    expect(wide).toBeLessThanOrEqual(view);
    for (const cell of [cells.first(), cells.last()]) {
      const box = (await cell.boundingBox())!;
      expect(box.x + box.width).toBeLessThanOrEqual(WIDE.width);
    }
    await visitor.page.getByLabel('Search clips, placements and rules').fill('Commonfold');
    await expect(async () => (await cells.count()) < 20).toBecomeTrue();
    await visitor.page.getByRole('radio', { name: 'Stopped' }).click();
    await visitor.has('button', /^Show .*Commonfold Wide: .*stop/);
  });
});
