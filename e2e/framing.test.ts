import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { cropDetect, probe } from '../tests/make-clip';
import { drawn, inSoak, trials } from '../tests/soak';
import { similarity } from '../tests/ssim';
import { atTheApp, type Visitor } from './app';

const MASTER = 'public/demo/kite-day.mp4';
/** Each pixel of the page is drawn once in the short tests, and four times in the long ones, as on a phone. */
const PHONE_SCREEN = { touch: true, scale: trials(1, 2) };
const SIZES = {
  '1080x1920': 'Verrow Short',
  '1080x1080': 'Tesselle Square',
  '1080x1350': 'Tesselle Portrait',
};

/** A picture of a view of the player, as it is on screen, once it no longer changes. */
async function viewOf({ page }: Visitor, name: string): Promise<Buffer> {
  const canvas = page.getByRole('img', { name, exact: true });
  const picture = () => canvas.evaluate((element) => (element as HTMLCanvasElement).toDataURL('image/png'));
  let last = '';
  for (let n = 0; n < 40; n++) {
    const now = await picture();
    if (now === last) return Buffer.from(now.slice(now.indexOf(',') + 1), 'base64');
    last = now;
    await page.waitForTimeout(500);
  }
  throw new Error(`${name} goes on changing`);
}

/** The window of a canvas, in pixels of the master from its left edge. */
async function leftOf(visitor: Visitor, canvas: string): Promise<number> {
  const name = new RegExp(`^Work on ${canvas}`);
  const other = visitor.button(name);
  if (await other.isVisible()) {
    await visitor.tap('button', name);
    // The fields speak of this canvas once its button has gone.
    await other.waitFor({ state: 'hidden' });
  }
  return Number(await visitor.value('From left'));
}

async function addCanvases(visitor: Visitor): Promise<void> {
  await visitor.step('Canvas');
  for (const name of Object.values(SIZES).slice(1)) {
    await visitor.press('Add a canvas');
    await visitor.page.getByRole('radio', { name, exact: true }).click();
  }
  await visitor.step('Framing');
}

const panel = (visitor: Visitor, name: string) => visitor.tap('radio', name);

describe('the framing bench on a phone', () => {
  const here = atTheApp(PHONE_SCREEN);
  let visitor: Visitor;
  beforeAll(async () => {
    ({ visitor } = here);
    await visitor.openDemo();
    await addCanvases(visitor);
  });
  const left = (canvas: string) => leftOf(visitor, canvas);

  it('frames shots for three canvases by touch: one drag a shot moves them all', async () => {
    for (const n of drawn([1, 2, 3, 4, 5, 6, 7], 2)) {
      await visitor.tap('button', new RegExp(`^Shot ${n}, `));
      await visitor.tap('button', 'Reset this shot');
      const plain = await left('Verrow Short');
      expect(plain).toBe(656.25);
      const middle = await visitor.middleOf('img', 'The master');
      // Past what snaps to the middle, and short of the thirds.
      const by = (n % 2 ? -1 : 1) * (16 + 4 * n);
      await visitor.swipe(middle, by);
      await visitor.button(new RegExp(`^Shot ${n}, framed`)).waitFor();
      const after = await left('Verrow Short');
      // The master is 366 pixels wide on screen.
      expect(Math.abs(after - plain - (by / 366) * 1920)).toBeLessThan(8);
      const square = await left('Tesselle Square');
      const portrait = await left('Tesselle Portrait');
      // All three have the same middle, as far as the picture reaches.
      const centre = after + 607.5 / 2;
      expect(square).toBeCloseTo(Math.min(840, Math.max(0, centre - 540)), 0);
      expect(portrait).toBeCloseTo(Math.min(1056, Math.max(0, centre - 432)), 0);
    }
  });

  it('loses nothing but the drag when the page is closed in the middle of one', async () => {
    await visitor.tap('button', /^Shot 7, /);
    const before = await left('Verrow Short');
    const middle = await visitor.middleOf('img', 'The master');
    await visitor.page.mouse.move(middle.x, middle.y);
    await visitor.page.mouse.down();
    await visitor.page.mouse.move(middle.x + 70, middle.y, { steps: 5 });
    await expect(async () => (await visitor.value('From left')) !== String(before)).toBecomeTrue();
    await visitor.page.reload();
    await visitor.tap('button', /^Shot 7, /);
    expect(await left('Verrow Short')).toBe(before);
  });

  it('puts a point at the seat by a double tap, and the window follows the seat', async () => {
    await visitor.tap('button', /^Shot 2, /);
    await left('Verrow Short');
    const middle = await visitor.middleOf('img', 'The master');
    await visitor.page.touchscreen.tap(middle.x + 60, middle.y);
    await visitor.page.touchscreen.tap(middle.x + 60, middle.y);
    const expected = 960 + (60 / 366) * 1920;
    expect(Math.abs((await left('Verrow Short')) + 607.5 / 2 - expected)).toBeLessThan(8);
    await visitor.tap('button', 'Put the subject on the left third');
    expect(Math.abs((await left('Verrow Short')) + 607.5 / 3 - expected)).toBeLessThan(8);
  });

  it('keyframes the crossing kite from a frame on, and eases it', async () => {
    await visitor.tap('button', /^Shot 3, /);
    await left('Verrow Short');
    await visitor.tap('button', 'Reset this shot');
    await visitor.tap('radio', 'From this frame on');
    await visitor.type('From left', '200');
    for (let n = 0; n < 24; n++) await visitor.press('Forward one frame');
    await visitor.type('From left', '920');
    await panel(visitor, 'Motion');
    await visitor.sees('2 keyframes, one here.');
    await visitor.press('Go to the keyframe before');
    expect(await visitor.value('From left')).toBe('200');
    for (let n = 0; n < 12; n++) await visitor.press('Forward one frame');
    expect(await visitor.value('From left')).toBe('560');
    await visitor.tap('radio', 'Soft start');
    // cubic-bezier(0.42, 0, 1, 1) at half its time: 0.3154 (CSS Easing Functions Level 1).
    expect(Number(await visitor.value('From left'))).toBeCloseTo(200 + 720 * 0.3154, 0);
    await visitor.type('Curve', '0, 0, 0.58, 1');
    await visitor.page.getByRole('radio', { name: 'Soft end', checked: true }).waitFor();
    await visitor.tap('radio', 'Even');
    await visitor.tap('radio', 'Whole shot');
    await visitor.button(/^Shot 3, keyframed/).waitFor();
  });

  it('frames one canvas by itself, and lets it follow again', async () => {
    await visitor.tap('button', /^Shot 5, /);
    await panel(visitor, 'Place');
    const before = await left('Tesselle Square');
    await visitor.tap('button', 'Frame this canvas by itself');
    await visitor.sees(/Tesselle Square, by itself/);
    await visitor.type('From left', '100');
    expect(await left('Verrow Short')).not.toBeCloseTo(100 + 540 - 607.5 / 2, 0);
    expect(await left('Tesselle Square')).toBe(100);
    await visitor.button(/^Shot 5, .*by itself/).waitFor();
    await visitor.tap('button', 'Share the framing again');
    expect(await left('Tesselle Square')).toBe(before);
  });

  it('tilts with the least zoom that its corners need, and makes a drawn line level', async () => {
    await visitor.tap('button', /^Shot 6, /);
    await left('Verrow Short');
    await panel(visitor, 'Turn');
    await visitor.type('Tilt', '10');
    // cos 10° + sin 10° · 9/16: the height of the bounding box of the tallest 9:16 window.
    await visitor.sees('its corners need a zoom of 1.08.');
    await visitor.press('Level: draw along the horizon');
    const middle = await visitor.middleOf('img', 'The master');
    await visitor.swipe({ x: middle.x - 60, y: middle.y }, 120, 6);
    const tilt = (Math.atan2(6, 120) * 180) / Math.PI;
    await expect(async () => Math.abs(Number(await visitor.value('Tilt')) - tilt) < 0.3).toBecomeTrue();
    await visitor.type('Tilt', '0');
  });

  it('stacks two panes with a framing each, and says when both show the same', async () => {
    await visitor.tap('button', /^Shot 7, /);
    await left('Verrow Short');
    await panel(visitor, 'Layout');
    await visitor.tap('radio', 'Stacked');
    await visitor.tap('radio', 'Pane 2');
    await visitor.type('Zoom', '1.5');
    await visitor.button(/^Shot 7, .*shows its subject twice/).waitFor();
    await visitor.type('From left', '0');
    await visitor.tap('radio', 'Pane 1');
    await visitor.type('Zoom', '1.5');
    await visitor.type('From left', '960');
    await visitor.button(/^Shot 7, .*framed/).waitFor();
    const divider = visitor.page.getByRole('slider', { name: 'Divider 1' });
    await divider.scrollIntoViewIfNeeded();
    const box = (await divider.boundingBox())!;
    await visitor.swipe({ x: box.x + box.width / 2, y: box.y + box.height / 2 }, 0, -30);
    const share = Number(await divider.getAttribute('aria-valuenow'));
    expect(share).toBeGreaterThan(28);
    expect(share).toBeLessThan(40);
    await visitor.tap('radio', 'Single');
  });

  it('copies a framing, plays the check, and keeps a tick until something changes', async () => {
    await visitor.tap('button', /^Shot 1, /);
    await left('Verrow Short');
    await visitor.type('Zoom', '1.5');
    await panel(visitor, 'Copy');
    await visitor.tap('radio', 'Zoom only');
    await visitor.tap('button', 'Copy to the next shot');
    await visitor.tap('button', 'Tick this shot');
    await visitor.button(/^Shot 1, .*ticked/).waitFor();
    await visitor.tap('button', /^Shot 2, /);
    expect(await visitor.value('Zoom')).toBe('1.50');
    await visitor.tap('button', 'Review the shots');
    await visitor.press('Stop to fix');
    await visitor.tap('button', /^Shot 1, /);
    await visitor.type('Zoom', '1.2');
    await visitor.button(/^Shot 1, .*changed since its tick/).waitFor();
  });

  it('changes a canvas from square to portrait and back, and loses nothing', async () => {
    await visitor.tap('button', /^Shot 4, /);
    const before = await left('Tesselle Square');
    await visitor.step('Canvas');
    await visitor.page.getByRole('radio', { name: 'Tesselle Portrait', exact: true }).click();
    await visitor.page.getByRole('radio', { name: 'Tesselle Square', exact: true }).click();
    await visitor.step('Framing');
    expect(await left('Tesselle Square')).toBe(before);
  });

  it('undoes it all, one step after another', async () => {
    const undo = visitor.button(/^Undo: /).first();
    while (await undo.isVisible()) await undo.click();
    expect(await visitor.page.getByRole('button', { name: /^Work on / }).count()).toBe(0);
    expect(visitor.errors).toEqual([]);
  });
});

describe('three canvases in one go', () => {
  const here = atTheApp(PHONE_SCREEN);
  let visitor: Visitor;
  const folder = mkdtempSync(path.join(tmpdir(), 'framing-'));
  const files: Record<string, string> = {};
  beforeAll(async () => {
    ({ visitor } = here);
    await visitor.openDemo();
    await visitor.step('Length');
    await visitor.type('First frame kept', '00:00:12:00');
    await visitor.type('Last frame kept', '00:00:12:11');
    await addCanvases(visitor);
  });

  /** Exports the three canvases in one go, so many frames, and lets ffprobe and cropdetect judge each. */
  async function exportAll(frames: number): Promise<void> {
    await visitor.step('Export');
    const old = visitor.button('Delete');
    for (let left = await old.count(); left > 0; left--) {
      await old.first().click();
      await expect(async () => (await old.count()) < left).toBecomeTrue();
    }
    await visitor.setBitRate('12', 'all');
    await visitor.press('Export all 3 in one go');
    for (const file of await visitor.downloadAll(3)) {
      const [video] = probe(file);
      files[`${video?.width}x${video?.height}`] = file;
      expect(video).toMatchObject({
        nb_frames: String(frames),
        avg_frame_rate: '24000/1001',
        profile: 'High',
      });
      expect(cropDetect(file)).toBe(`${video?.width}:${video?.height}:0:0`);
    }
    expect(Object.keys(files).sort()).toEqual(Object.keys(SIZES).sort());
  }

  /** Compares frames of the exported files with what the framing page shows of them. */
  async function sameAsPreview(frames: readonly number[]): Promise<void> {
    await visitor.step('Framing');
    await visitor.tap('button', /^Shot 3, /);
    let frame = 0;
    for (const wanted of frames) {
      for (; frame < wanted; frame++) await visitor.press('Forward one frame');
      for (const [size, name] of Object.entries(SIZES)) {
        const shown = path.join(folder, 'shown.png');
        const picture = await viewOf(visitor, name);
        writeFileSync(shown, picture);
        const drawn = path.join(folder, 'drawn.png');
        // Width and height of a PNG stand at its bytes 16 to 23 (ISO/IEC 15948, 11.2.2).
        const pick = `select=eq(n\\,${wanted}),scale=${picture.readUInt32BE(16)}:${picture.readUInt32BE(20)}:flags=area`;
        const input = ['-y', '-v', 'error', '-i', files[size] ?? ''];
        execFileSync('ffmpeg', [...input, '-vf', pick, '-frames:v', '1', drawn]);
        const { mean } = similarity(shown, drawn, 'format=yuv444p');
        expect([name, wanted, mean >= 0.98 || mean]).toEqual([name, wanted, true]);
      }
    }
  }

  it('are exported, each as its window moves and its layout says', async () => {
    // A straight way from 200 to 920 over the 12 frames of the clip.
    await visitor.tap('button', /^Shot 3, /);
    await leftOf(visitor, 'Verrow Short');
    await visitor.tap('button', 'Reset this shot');
    await visitor.tap('radio', 'From this frame on');
    await visitor.type('From left', '200');
    for (let n = 0; n < 11; n++) await visitor.press('Forward one frame');
    await visitor.type('From left', '920');
    await visitor.tap('radio', 'Whole shot');
    await visitor.tap('button', 'Work on Tesselle Square');
    await visitor.tap('radio', 'Layout');
    await visitor.tap('radio', 'Soft backdrop');
    await visitor.tap('button', 'Work on Tesselle Portrait');
    await visitor.tap('radio', 'Banded');
    await exportAll(12);
  });

  it('look as the preview looks', () => sameAsPreview(drawn([0, 3, 6, 8, 11], 2)));

  it('show the windows that a general-purpose program draws between the two keyframes', () => {
    // Four times as large, so that whole pixels of the crop are quarters of the master's.
    const window =
      'trim=start_frame=288:end_frame=300,setpts=PTS-STARTPTS,scale=7680:4320:flags=lanczos,' +
      "crop=2430:4320:'4*(200+720*n/11)':0,scale=1080:1920:flags=lanczos";
    const { mean, worst, frames } = similarity(files['1080x1920'] ?? '', MASTER, window);
    expect(frames).toBe(12);
    expect(mean).toBeGreaterThanOrEqual(0.97);
    expect(worst).toBeGreaterThanOrEqual(0.95);
  });

  inSoak('look as the preview looks in an inset, turned and tilted', async () => {
    await visitor.tap('button', 'Work on Tesselle Square');
    await visitor.tap('radio', 'Turned');
    await visitor.tap('button', 'Work on Tesselle Portrait');
    await visitor.tap('radio', 'Inset');
    await visitor.tap('radio', 'Pane 2');
    await visitor.type('Zoom', '3');
    await visitor.type('From left', '1200');
    await visitor.tap('button', 'Work on Verrow Short');
    await visitor.tap('radio', 'Turn');
    await visitor.type('Tilt', '8');
    // What does not move needs few frames.
    await visitor.step('Length');
    await visitor.type('Last frame kept', '00:00:12:05');
    await exportAll(6);
    await sameAsPreview(drawn([1, 4], 1));
  });
});
