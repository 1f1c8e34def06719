import type { Page } from 'playwright-core';
import { makeClip } from '../tests/make-clip';
import { atTheApp } from './app';

const here = atTheApp();
const clip = makeClip('edit.mp4', { size: '1280x720', seconds: 4 });

const button = (page: Page, name: string) => page.getByRole('button', { name, exact: true }).first();

/** Another tab of the same browser at the same address. */
async function anotherTab(): Promise<Page> {
  const page = await here.visitor.context.newPage();
  await page.goto(here.visitor.page.url());
  return page;
}

describe('two tabs at one master', () => {
  it('look at it once, and both have what was found', async () => {
    const { visitor } = here;
    await visitor.bringIn(makeClip('looked-at.mp4', { size: '1280x720', seconds: 8 }));
    await visitor.step('Master');
    const other = await anotherTab();
    await visitor.has('listitem', /^Proxy: /);
    await other.getByRole('listitem', { name: /^Proxy: / }).waitFor();
    await other.reload();
    await other.getByRole('listitem', { name: /^Proxy: / }).waitFor();
    await other.close();
    await visitor.press('Job sheet');
    await visitor.press('All jobs');
  });

  it('are told when the job is deleted in one of them', async () => {
    const { visitor } = here;
    const other = await visitor.context.newPage();
    await visitor.page.getByRole('link', { name: /^looked at/ }).click();
    await visitor.has('listitem', 'Size: 1280×720');
    await other.goto(visitor.page.url());
    await other.getByText('Another tab works on this job.').waitFor();
    await visitor.press('All jobs');
    await visitor.doWith('looked at', 'Delete');
    await visitor.press('Delete it');
    await other.getByText('This job is not in this browser.').waitFor();
    await other.close();
  });
});

describe('two tabs of one job', () => {
  let second: Page;

  it('are one that works, and one that watches and shows what is done there', async () => {
    const { visitor } = here;
    await visitor.bringIn(clip);
    await visitor.step('Post');
    second = await anotherTab();
    await second.getByText('Another tab works on this job.').waitFor();
    await visitor.page.getByLabel('Title', { exact: true }).fill('Typed in the first tab');
    await expect(
      async () =>
        (await second.getByLabel('Title', { exact: true }).inputValue()) === 'Typed in the first tab',
    ).toBecomeTrue();
    // Neither a click nor a key reaches the page of a tab that watches.
    expect(await second.getByLabel('Title', { exact: true }).isEditable()).toBe(false);
    await second.keyboard.press('Control+z');
    expect(await visitor.value('Title')).toBe('Typed in the first tab');
  });

  it('hand the job over with all that was done, and its undo', async () => {
    const { visitor } = here;
    await visitor.page.getByLabel('Description', { exact: true }).fill('Typed at the last moment');
    await button(second, 'Continue here').click();
    await second.getByText('Another tab works on this job.').waitFor({ state: 'hidden' });
    await visitor.sees('Another tab works on this job.');
    expect(await second.getByLabel('Description', { exact: true }).inputValue()).toBe(
      'Typed at the last moment',
    );
    await button(second, 'Undo: change the words').click();
    await expect(
      async () => (await second.getByLabel('Description', { exact: true }).inputValue()) === '',
    ).toBecomeTrue();
    await expect(async () => (await visitor.value('Description')) === '').toBecomeTrue();
  });

  it('go on by themselves where the other is closed', async () => {
    const { visitor } = here;
    await second.close();
    await visitor.page.getByText('Another tab works on this job.').waitFor({ state: 'hidden' });
    await visitor.page.getByLabel('Title', { exact: true }).fill('Back in the first tab');
    await expect(async () =>
      JSON.stringify(await visitor.stored()).includes('Back in the first tab'),
    ).toBecomeTrue();
    await visitor.page.reload();
    await expect(async () => (await visitor.value('Title')) === 'Back in the first tab').toBecomeTrue();
  });

  it('leave an export to the tab that makes it', async () => {
    const { visitor } = here;
    await visitor.step('Export');
    await visitor.setBitRate('12');
    await visitor.press('Export to MP4');
    await visitor.sees(/frames a second/);
    second = await anotherTab();
    await second.getByText('Another tab works on this job.').waitFor();
    await second.getByText('It is being made in another tab.').waitFor();
    expect(await second.getByText('The export was interrupted').count()).toBe(0);
    await button(second, 'Continue here').click();
    await second.getByText('Another tab works on this job.').waitFor({ state: 'hidden' });
    // The first tab makes it still, and the one that works on the job sees it done.
    await second.getByText('Read back: as asked').waitFor({ timeout: 120_000 });
    await second.reload();
    await second.getByText('Read back: as asked').waitFor();
  });

  it('take an export up once the tab that made it is gone', async () => {
    const { visitor } = here;
    // While it was loaded anew the first tab had taken the job up.
    await button(second, 'Continue here').click();
    await second.getByText('Another tab works on this job.').waitFor({ state: 'hidden' });
    await button(second, 'Export to MP4').click();
    await second.getByText(/frames a second/).waitFor();
    await second.close();
    await visitor.page.reload();
    await visitor.button('Download').nth(1).waitFor({ timeout: 120_000 });
    expect(visitor.errors).toEqual([]);
  });
});
