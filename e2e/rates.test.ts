import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { probe } from '../tests/make-clip';
import { filmed } from '../tests/make-filmed';
import { faultsOf } from '../tests/axe';
import { atTheApp } from './app';

const here = atTheApp();

const estimate = () => here.visitor.page.getByLabel('Estimated file').innerText();
const tried = () => here.visitor.page.getByRole('radiogroup', { name: 'Bit rates tried' });

describe('a trial of bit rates', () => {
  it('says what a viewer gets of each, is the default rate, and is kept until the clip changes', async () => {
    const { visitor } = here;
    const { page } = visitor;
    await visitor.bringIn(filmed('rated', 'null', { from: 0, seconds: 0.6 }));
    await visitor.step('Export');
    await page.getByText('The master is being analysed').waitFor({ state: 'hidden', timeout: 90_000 });
    await visitor.press(/^What a viewer gets/);
    await visitor.press('Try bit rates');
    await visitor.press('Stop');
    await visitor.press('Try bit rates');
    await visitor.sees(/^Send \d+\.\d Mb\/s/, 200_000);
    const rows = (await tried().innerText()).match(/SSIM 0\.\d{3}, \d+\.\d dB/g) ?? [];
    expect(rows).toHaveLength(6);
    const ssims = rows.map((row) => Number(/0\.\d{3}/.exec(row)?.[0]));
    expect(ssims[5]!).toBeGreaterThan(ssims[0]!);
    expect(await estimate()).toMatch(/measured on this clip and outlet/);
    await visitor.has('img', /^Likeness 0\.\d{3} to 0\.\d{3}, advised/);
    const divider = page.getByRole('slider', { name: /^Divider/ });
    await divider.scrollIntoViewIfNeeded();
    const middle = (await divider.boundingBox())!;
    await visitor.drag({ x: middle.x + middle.width / 2, y: middle.y + 200 }, -80);
    expect(Number(await divider.getAttribute('aria-valuenow'))).toBeLessThan(40);
    expect(await faultsOf(page)).toEqual([]);

    await page.reload();
    await visitor.press(/^What a viewer gets/);
    await visitor.sees(/^Send \d+\.\d Mb\/s/);
    await visitor.press(/^Sharpening/);
    await page.getByRole('radio', { name: 'Sharpen', exact: true }).click();
    await visitor.sees('The clip, its settings or the rule sheet changed since bit rates were tried.');
    expect(await estimate()).not.toMatch(/measured on this clip/);
    // What it does is seen pixel for pixel.
    await visitor.sees('Without');
    await page.getByRole('radio', { name: 'None', exact: true }).click();
    await visitor.sees(/^Send \d+\.\d Mb\/s/);
    expect(visitor.errors).toEqual([]);
  });

  it('is followed by files that are named, saved together, and opened beside the plan', async () => {
    const { visitor } = here;
    const { page } = visitor;
    await visitor.press(/^File names/);
    await visitor.type('Pattern of file names', '{name}');
    await visitor.sees(/\{name\} is none of/);
    await visitor.type('Pattern of file names', '{number}-{clip}-{size}');
    await visitor.sees('01-rated-1080x1920.mp4');
    await visitor.askForExports(2);
    await visitor.button('Download').nth(1).waitFor({ timeout: 180_000 });
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      visitor.press('Save all 2 as a ZIP'),
    ]);
    const zip = path.join(mkdtempSync(path.join(tmpdir(), 'zip-')), 'all.zip');
    await download.saveAs(zip);
    const listed = execFileSync('python3', ['-m', 'zipfile', '-l', zip]).toString();
    expect(listed).toMatch(/01-rated-1080x1920\.mp4/);
    expect(listed).toMatch(/01-rated-1080x1920 \(2\)\.mp4/);
    execFileSync('python3', ['-m', 'zipfile', '-e', zip, path.dirname(zip)]);
    expect(probe(path.join(path.dirname(zip), '01-rated-1080x1920 (2).mp4'))[0]).toMatchObject({
      height: 1920,
    });

    await visitor.press('Open it');
    await page.getByLabel('01-rated-1080x1920.mp4').waitFor();
    await visitor.press('Put this frame beside the plan’s');
    await page.getByRole('slider', { name: /^Divider: As planned/ }).waitFor();
    expect(await faultsOf(page)).toEqual([]);
    await page.keyboard.press('Escape');

    await visitor.press(/^Stills/);
    await visitor.type('Frame at', '00:00:00:12');
    const [still] = await Promise.all([page.waitForEvent('download'), visitor.press('Save PNG')]);
    const png = path.join(path.dirname(zip), 'still.png');
    await still.saveAs(png);
    expect(still.suggestedFilename()).toBe('01-rated-1080x1920_12.png');
    expect(probe(png)[0]).toMatchObject({ codec_name: 'png', width: 1080, height: 1920 });
    expect(visitor.errors).toEqual([]);
  });
});
