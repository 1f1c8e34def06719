import { makeClip } from '../tests/make-clip';
import { SINGLE_PRESS_MS, TestServer, Visitor } from './app';
import { storedNames } from './stored-names';

const server = new TestServer();
let visitor: Visitor;
let clip: string;

beforeAll(async () => {
  clip = makeClip('edit.mp4', { size: '1920x1080', seconds: 2 });
  await server.start();
});
beforeEach(async () => {
  visitor = await Visitor.arrive(server.origin);
});
afterEach(() => visitor.leave());
afterAll(() => server.stop());

const stored = (folder: string) => storedNames(visitor.page, folder);

/** Exports the clip for Verrow, so large that it goes up in several pieces or as it comes, and goes on to its post. */
async function readyToPost(inPieces = false): Promise<void> {
  await visitor.bringIn(clip);
  await visitor.step('Check');
  await visitor.press('Add #upright');
  await visitor.has('listitem', 'Required tag: pass');
  await visitor.press('Say that it is not made for children');
  await visitor.step('Export');
  if (inPieces) await visitor.setBitRate('20');
  await visitor.exportClip();
  await visitor.sees('Read back: as asked');
  await visitor.press('Post it');
  await visitor.signIn('Verrow', 'odlin');
}

describe('an upload', () => {
  it('that breaks in the middle goes on where it stopped', async () => {
    await readyToPost(true);
    const offsets: number[] = [];
    let broken = 0;
    await visitor.page.route('**/api/uploads/*', async (route) => {
      const request = route.request();
      if (request.method() === 'PATCH') {
        offsets.push(Number(request.headers()['upload-offset']));
        // The second piece never arrives, twice.
        if (offsets.length > 1 && broken < 2) {
          broken += 1;
          return route.abort('connectionreset');
        }
      }
      return route.continue();
    });
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees(/is up on Verrow/, 60_000);
    expect(broken).toBe(2);
    expect(offsets[0]).toBe(0);
    // The pieces after the break start where the server's file ended: nothing is sent twice.
    expect(offsets.filter((offset) => offset === 0)).toHaveLength(1);
    expect(new Set(offsets).size).toBe(offsets.length - 2);
  });

  it('to a server that is down says what to do, and works once it is up', async () => {
    await readyToPost();
    await server.stop();
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees('The server does not answer.', 60_000);
    await visitor.sees(/Your clip and words are kept/);
    await server.start();
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees(/is up on Verrow/, 60_000);
  });

  it('that the outlet refuses shows why', async () => {
    await visitor.bringIn(clip);
    await visitor.step('Framing');
    await visitor.press('Fit, with bars');
    await visitor.step('Check');
    await visitor.override('Every frame filled');
    await visitor.override('Required tag');
    await visitor.override('Statement on children');
    await visitor.step('Export');
    await visitor.exportClip();
    await visitor.sees('Read back: as asked');
    await visitor.press('Post it');
    await visitor.signIn('Verrow', 'odlin');
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees(/Verrow refused/, 60_000);
    await visitor.sees(/The picture has black bars: left 0, top 656, right 0, bottom 656 pixels/);
    await visitor.sees(/The tag #upright is missing/);
    await visitor.sees(/does not say whether the clip is made for children/);
  });
});

describe('an export', () => {
  it('that is cancelled leaves nothing behind', async () => {
    await visitor.bringIn(clip);
    await visitor.step('Export');
    await visitor.press('Export to MP4');
    await visitor.sees(/frames a second/);
    await visitor.press(/^Cancel /);
    await visitor.sees('Nothing has been exported yet.');
    expect(await stored('exports')).toEqual([]);
  });

  it('that a reload interrupts goes on by itself', async () => {
    await visitor.bringIn(clip);
    await visitor.step('Export');
    await visitor.press('Export to MP4');
    await visitor.sees(/frames a second/);
    await visitor.page.reload();
    await visitor.button('Download').waitFor({ timeout: 120_000 });
    expect(await stored('exports')).toHaveLength(1);
  });

  it('says so where its code does not come, and is made once it does', async () => {
    await visitor.bringIn(clip);
    await visitor.resizeCanvas();
    await visitor.step('Export');
    // A server that was updated has no more of what a page that is open asks for.
    const code = '**/workers/export-task-*.js';
    await visitor.context.route(code, (route) => route.abort());
    await visitor.press('Export to MP4');
    await visitor.sees('The code for this could not be loaded');
    await visitor.context.unroute(code);
    await visitor.page.waitForTimeout(SINGLE_PRESS_MS);
    await visitor.exportClip();
  });

  it('fails in words when the master is gone, and the job takes the same file up again', async () => {
    const id = await visitor.bringIn(clip);
    await visitor.resizeCanvas();
    await visitor.step('Export');
    await visitor.page.evaluate(async () => {
      const root = await navigator.storage.getDirectory();
      await root.removeEntry('masters', { recursive: true });
    });
    await visitor.press('Export to MP4');
    // The look at the master may have failed as well: then the export waits for the person's word, which may come to
    // nothing where the look fails at that very moment.
    const without = visitor.button('Export without it');
    await expect(async () => {
      if (await without.isVisible()) await without.click({ timeout: 1000 }).catch(() => undefined);
      return visitor.page.getByText('The export failed').first().isVisible();
    }).toBecomeTrue();
    await visitor.page.goto(`/job/${id}`);
    await visitor.sees(/is no longer in this browser's storage/);
    await visitor.pick(makeClip('other.mp4'), 'Find edit.mp4');
    await visitor.sees(/other\.mp4 is another file than this job's master/);
    await visitor.pick(clip, 'Find edit.mp4');
    await visitor.page.getByText(/is no longer in/).waitFor({ state: 'hidden' });
    await visitor.step('Export');
    await visitor.press('Try again');
    await visitor.button('Download').waitFor({ timeout: 120_000 });
  });
});

describe('a stored job', () => {
  it('that is damaged or newer is kept aside, and the rest opens', async () => {
    await visitor.bringIn(clip);
    const whole = JSON.stringify({ job: { schemaVersion: 3, id: 'old', title: 'An old one' }, history: {} });
    const damaged = whole.slice(0, 40);
    const newer = whole.replace('"schemaVersion":3', '"schemaVersion":99');
    await visitor.page.evaluate(
      ([first, second]) => {
        localStorage.setItem('gusset/job/broken', first!);
        localStorage.setItem('gusset/job/from-later', second!);
      },
      [damaged, newer],
    );
    await visitor.page.goto('/');
    await visitor.sees('A stored job is damaged.');
    await visitor.sees('A job was saved by a newer Gusset.');
    const [copy] = await Promise.all([
      visitor.page.waitForEvent('download'),
      visitor.press('Save a copy of it'),
    ]);
    expect(copy.suggestedFilename()).toMatch(/\.json$/);
    await visitor.page.getByRole('link', { name: /^edit/ }).click();
    await visitor.has('listitem', 'Size: 1920×1080');
    const kept = await visitor.page.evaluate(() => [
      localStorage.getItem('gusset/job/broken'),
      localStorage.getItem('gusset/job/from-later'),
    ]);
    expect(kept).toEqual([damaged, newer]);
  });

  it('says so when the browser takes no more', async () => {
    await visitor.bringIn(clip);
    await visitor.page.evaluate(() => {
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      };
    });
    await visitor.step('Canvas');
    await visitor.page.getByRole('radio', { name: 'Tesselle Square' }).click();
    await visitor.sees(/The job could not be saved in this browser/);
  });

  it('is deleted whole', async () => {
    await visitor.bringIn(clip);
    await visitor.press('All jobs');
    await visitor.doWith('edit', 'Delete');
    await visitor.press('Delete it');
    await visitor.page.getByRole('heading', { name: 'edit', level: 2 }).waitFor({ state: 'hidden' });
    const kept = async () => [
      ...(await stored('masters')),
      ...(await stored('stills')),
      ...(await stored('passes')),
    ];
    // What was being made of it is ended first.
    await expect(async () => (await kept()).length === 0).toBecomeTrue();
  });
});
