import { execFileSync } from 'node:child_process';
import { makeClip, packetsOf } from '../tests/make-clip';
import { similarity } from '../tests/ssim';
import { atTheApp } from './app';

const here = atTheApp();

const strips = () =>
  here.visitor.page.getByRole('list', { name: 'Queue' }).getByRole('listitem', { name: / in the queue$/ });

/** The strips of the queue by the marks that {@link mark} gave them, in their order. */
const marks = () => strips().evaluateAll((all) => all.map((strip) => strip.getAttribute('data-mark')));
const mark = () =>
  strips().evaluateAll((all) => all.forEach((strip, i) => strip.setAttribute('data-mark', String(i))));

/** The sound of a file, in both channels one after the other. */
function soundOf(file: string): Float32Array {
  const args = ['-v', 'error', '-i', file, '-f', 'f32le', '-ac', '2', '-ar', '48000', '-'];
  const bytes = execFileSync('ffmpeg', args, { maxBuffer: 1 << 28 });
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
}

const power = (samples: Float32Array) => samples.reduce((sum, value) => sum + value * value, 0);

describe('the queue of exports', () => {
  it('is put in order by keys and by drag, and runs in that order', async () => {
    const { visitor } = here;
    const { page } = visitor;
    await visitor.bringIn(makeClip('queued.mp4', { size: '1920x1080', rate: '24', seconds: 6 }));
    await visitor.step('Export');
    await page.getByText('The master is being analysed').waitFor({ state: 'hidden', timeout: 90_000 });
    await visitor.askForExports(4);
    await expect(async () => (await strips().count()) === 4).toBecomeTrue();
    await visitor.sees(/frames a second/);
    await mark();
    const handles = page.getByRole('button', { name: /^Move / });
    await handles.nth(2).focus();
    for (const key of ['Space', 'ArrowUp', 'Space']) {
      await page.keyboard.press(key);
      // The strips glide to their places.
      await page.waitForTimeout(300);
    }
    expect(await marks()).toEqual(['0', '1', '3', '2']);
    await visitor.press(/ earlier$/);
    await expect(async () => (await marks()).join() === '0,3,1,2').toBecomeTrue();
    const [from, to] = [await handles.nth(2).boundingBox(), await handles.nth(0).boundingBox()];
    await page.mouse.move(from!.x + 20, from!.y + 20);
    await page.mouse.down();
    for (let n = 1; n <= 10; n++) {
      await page.mouse.move(from!.x + 20, from!.y + 10 + ((to!.y - from!.y) * n) / 10);
      await page.waitForTimeout(20);
    }
    await page.mouse.up();
    await expect(async () => (await marks()).join() === '0,2,3,1').toBecomeTrue();
    // All but the first are stopped; nothing of them stays.
    for (const last of ['1', '3', '2']) {
      await visitor.page
        .getByRole('button', { name: /^Cancel / })
        .last()
        .click();
      await expect(async () => !(await marks()).includes(last)).toBecomeTrue();
    }
  });

  it('goes on after a pause and a reload from what is whole, and the file is what it would have been', async () => {
    const { visitor } = here;
    const [whole] = await visitor.downloadAll(1);
    await visitor.press('Export to MP4');
    await visitor.page.getByText(/^Exporting: frame (6|7|8|9)\d of 144/).waitFor({ timeout: 60_000 });
    await visitor.press(/^Pause /);
    await visitor.sees('Paused: what is made so far is kept.');
    const share = await strips().getByRole('progressbar').getAttribute('aria-valuenow');
    expect(Number(share)).toBeGreaterThan(30);
    await visitor.page.reload();
    await visitor.sees('Paused: what is made so far is kept.');
    await visitor.press(/^Resume /);
    // At once more is there than a new beginning would have.
    await visitor.page
      .getByText(/^Exporting: frame (4[89]|[5-9]\d|1\d\d) of 144/)
      .waitFor({ timeout: 60_000 });
    const [again] = await visitor.downloadAll(2);
    // What comes after the pause was encoded anew, and so differs a little.
    expect(similarity(again!, whole!, 'null').worst).toBeGreaterThan(0.9);
    // No picture is missing or there twice: each at its own time.
    const times = packetsOf(again!).map(({ time }) => time);
    expect(times).toEqual(packetsOf(whole!).map(({ time }) => time));
    const [a, b] = [soundOf(whole!), soundOf(again!)];
    expect(b.length).toBe(a.length);
    // An encoder's own noise; what is missing or late by one packet would differ by more than there is.
    expect(power(a.map((value, i) => value - b[i]!)) / power(a)).toBeLessThan(0.02);
    expect(visitor.errors).toEqual([]);
  });
});
