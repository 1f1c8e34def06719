import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Download } from 'playwright-core';
import { makeClip } from '../tests/make-clip';
import { atTheApp, Visitor } from './app';
import { storedNames } from './stored-names';

const here = atTheApp();
const clip = makeClip('edit.mp4', { size: '640x360', seconds: 2 });
const folder = mkdtempSync(path.join(tmpdir(), 'jobs-'));

/** Presses a menu item and reads the file that it saves. */
async function saved(act: string, job = 'edit'): Promise<string> {
  const [download]: [Download, void] = await Promise.all([
    here.visitor.page.waitForEvent('download'),
    here.visitor.doWith(job, act),
  ]);
  const file = path.join(folder, download.suggestedFilename());
  await download.saveAs(file);
  return file;
}

/** Takes a job in from a file on the list. */
async function open(visitor: Visitor, file: string): Promise<void> {
  await visitor.page.goto('/');
  await visitor.pick(file, 'Open a job from a file');
}

const masters = ({ page }: Visitor) => storedNames(page, 'masters');

describe('a job in the list', () => {
  it('is renamed and copied, and says where it stands', async () => {
    const { visitor } = here;
    await visitor.bringIn(clip);
    await visitor.press('All jobs');
    await visitor.has('listitem', 'edit');
    await visitor.sees('Nothing exported yet');
    await visitor.doWith('edit', 'Rename');
    await visitor.page.getByLabel('Name of the job').fill('Kites over the bay');
    await visitor.press('Rename');
    await visitor.has('listitem', 'Kites over the bay');
    await visitor.doWith('Kites over the bay', 'Make a copy');
    await visitor.has('listitem', 'Kites over the bay (copy)');
    await visitor.page.reload();
    await visitor.has('listitem', 'Kites over the bay (copy)');
    await visitor.doWith('Kites over the bay', 'Rename');
    await visitor.page.getByLabel('Name of the job').fill('edit');
    await visitor.press('Rename');
    await visitor.has('listitem', 'edit');
  });

  it('is found among many by a word of its name', async () => {
    const { visitor } = here;
    for (const name of ['edit', 'edit']) await visitor.doWith(name, 'Make a copy');
    await visitor.page.getByLabel('Find a job').fill('bay COPY');
    await visitor.has('listitem', 'Kites over the bay (copy)');
    expect(await visitor.page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').count()).toBe(1);
    await visitor.sees('1 of 4 jobs');
    await visitor.page.getByLabel('Find a job').fill('');
  });

  it('goes out as one file and comes in again beside what is there, nothing overwritten', async () => {
    const { visitor } = here;
    const file = await saved('Save as a file');
    expect(path.basename(file)).toBe('edit.gusset.json');
    await open(visitor, file);
    await visitor.page.waitForURL(/\/job\/[^/]+$/);
    await visitor.sees('edit (again)');
    await visitor.press('All jobs');
    await visitor.has('listitem', 'edit');
  });

  it('moves to another browser with its masters in one archive', async () => {
    const file = await saved('Save with its masters');
    expect(path.basename(file)).toBe('edit.gusset.zip');
    const other = await Visitor.arrive(here.server.origin);
    await open(other, file);
    await other.page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
    await other.has('listitem', 'Size: 640×360');
    expect(await masters(other)).toHaveLength(1);
    expect(other.errors).toEqual([]);
    await other.leave();
  });

  it('moves without its masters too, and asks for the right one', async () => {
    const other = await Visitor.arrive(here.server.origin);
    await open(other, path.join(folder, 'edit.gusset.json'));
    await other.page.waitForURL(/\/job\/[^/]+$/);
    await other.sees(/is no longer in this browser's storage/);
    await other.pick(makeClip('other.mp4'), 'Find edit.mp4');
    await other.sees(/other\.mp4 is another file than this job's master/);
    await other.pick(clip, 'Find edit.mp4');
    await other.page.getByText(/is no longer in/).waitFor({ state: 'hidden' });
    await other.leave();
  });

  it.each<[string, (bytes: Buffer) => Buffer, RegExp]>([
    ['cut off', (bytes) => bytes.subarray(0, bytes.length - 400), /it is no archive, or it was cut off/],
    [
      'with another file in the place of its master',
      (bytes) => {
        const other = Buffer.from(bytes);
        other.fill(0, Math.floor(bytes.length / 2), Math.floor(bytes.length / 2) + 64);
        return other;
      },
      /edit\.mp4 is (damaged|another file than the job's master)/,
    ],
  ])('that comes in %s is refused, and leaves nothing behind', async (name, spoil, reason) => {
    const file = path.join(folder, `${name}.zip`);
    writeFileSync(file, spoil(readFileSync(path.join(folder, 'edit.gusset.zip'))));
    const other = await Visitor.arrive(here.server.origin);
    await open(other, file);
    await other.sees(reason);
    expect(await masters(other)).toEqual([]);
    expect(await other.page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').count()).toBe(0);
    await other.leave();
  });

  it('that was saved by a newer program says so', async () => {
    const file = path.join(folder, 'newer.json');
    const text = readFileSync(path.join(folder, 'edit.gusset.json'), 'utf8');
    writeFileSync(file, text.replace(/"schemaVersion": \d+/, '"schemaVersion": 99'));
    await open(here.visitor, file);
    await here.visitor.sees(/it was saved by a newer Gusset/);
    await here.visitor.press('Close');
  });

  it('tells what it keeps, and lets a master go while the work stays', async () => {
    const { visitor } = here;
    for (const name of ['Kites over the bay (copy)', 'edit (copy)', 'edit (again)']) {
      const card = visitor.page.getByRole('listitem', { name, exact: true });
      while ((await card.count()) > 0) {
        const before = await card.count();
        await visitor.doWith(name, 'Delete');
        await visitor.press('Delete it');
        await expect(async () => (await card.count()) === before - 1).toBecomeTrue();
      }
    }
    expect(await masters(visitor)).toHaveLength(1);
    await visitor.doWith('edit', 'Stored files');
    await visitor.press('Remove the master, keep the work');
    await visitor.sees('not in this browser');
    expect(await masters(visitor)).toEqual([]);
    await visitor.press('Close');
    await visitor.page.getByRole('link', { name: /^edit/ }).click();
    await visitor.sees(/is no longer in this browser's storage/);
    expect(visitor.errors).toEqual([]);
  });
});
