import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from '../tests/encode-film';
import { faultsOf } from '../tests/axe';
import { cropDetect, probe } from '../tests/make-clip';
import { blueKite } from '../tests/kite-in-view';
import { atTheApp, type Visitor } from './app';

/** The second to the fifth shot of the demo film: three of 144 frames, and one of 120. */
const MASTER = path.join(mkdtempSync(path.join(tmpdir(), 'follow-')), 'four-shots.mp4');
const PART = ['-ss', '6', '-t', '23', '-i', 'public/demo/kite-day.mp4'];
encodeFilm(MASTER, [...PART, '-preset', 'veryfast', '-crf', '12', '-g', '24']);
/** Frames of the second of them, in which a blue kite dives. */
const KITE = { in: 144, frames: 36 };

const panel = (visitor: Visitor, name: string) => visitor.tap('radio', name);
const shot = (visitor: Visitor, n: number) => visitor.tap('button', new RegExp(`^Shot ${n}, `));

/** Waits until following has begun, and then until it is through. */
async function followed(visitor: Visitor): Promise<void> {
  const stop = visitor.button('Stop following');
  await stop.waitFor({ timeout: 5000 }).catch(() => undefined);
  await stop.waitFor({ state: 'hidden', timeout: 240_000 });
}

describe('following on a phone', () => {
  const here = atTheApp({ touch: true });
  let visitor: Visitor;
  beforeAll(async () => {
    ({ visitor } = here);
    await visitor.bringIn(MASTER);
    await visitor.step('Master');
    await visitor.page.getByRole('listitem', { name: /^Proxy: / }).waitFor({ timeout: 90_000 });
    await visitor.step('Canvas');
    for (const name of ['Tesselle Square', 'Tesselle Portrait']) {
      await visitor.press('Add a canvas');
      await visitor.page.getByRole('radio', { name, exact: true }).click();
    }
    await visitor.step('Framing');
    await panel(visitor, 'Follow');
  });
  const shotState = async (n: number) =>
    visitor.page.getByRole('button', { name: new RegExp(`^Shot ${n}, `) }).getAttribute('aria-label');

  it('follows every shot in one go, for all canvases', async () => {
    await visitor.tap('button', 'Follow the 4 untouched shots');
    await visitor.page.getByRole('progressbar', { name: 'Looking for subjects' }).waitFor();
    await followed(visitor);
    for (let n = 1; n <= 4; n++) expect(await shotState(n)).not.toContain('untouched');
    expect(await shotState(2)).toContain('keyframed');
    // A subject that stays has one place.
    expect(await shotState(4)).toContain(', framed');
    await shot(visitor, 2);
    await visitor.page.getByRole('button', { name: /^Subject 1 [A-Z]/, pressed: true }).waitFor();
    await visitor.page.getByRole('button', { name: /^Subject 1 on the picture, /, pressed: true }).waitFor();
    expect(await faultsOf(visitor.page)).toEqual([]);
  }, 300_000);

  it('goes through a keyframe that a person set, and undo takes each step back', async () => {
    await shot(visitor, 2);
    for (let n = 0; n < 4; n++) await visitor.page.keyboard.press('Shift+w');
    await panel(visitor, 'Place');
    await panel(visitor, 'From this frame on');
    await visitor.type('From left', '500');
    await visitor.button('Undo: move the window').waitFor();
    await panel(visitor, 'Whole shot');
    await panel(visitor, 'Follow');
    await visitor.tap('button', 'Follow this shot');
    await followed(visitor);
    await visitor.button('Undo: follow').waitFor();
    expect(Number(await visitor.value('From left'))).toBe(500);
    await visitor.tap('button', 'Undo: follow');
    await visitor.tap('button', 'Undo: move the window');
    await visitor.button('Undo: follow').waitFor();
    expect(Number(await visitor.value('From left'))).not.toBe(500);
  });

  it('follows another subject by a tap, adds one by the next, and lets go by a tap on it', async () => {
    await shot(visitor, 3);
    const subject = (n: number) =>
      visitor.page.getByRole('button', { name: new RegExp(`^Subject ${n} [A-Z]`) });
    await subject(2).tap();
    await followed(visitor);
    await visitor.page.getByRole('button', { name: /^Subject 2 [A-Z]/, pressed: true }).waitFor();
    expect(await subject(1).getAttribute('aria-pressed')).toBe('false');
    await subject(1).tap();
    await followed(visitor);
    await visitor.page.getByRole('button', { name: /^Subject 1 [A-Z]/, pressed: true }).waitFor();
    await visitor.page.getByRole('button', { name: /^Subject 2 [A-Z]/, pressed: true }).waitFor();
    // Two flyers, far apart: no tall window holds both, and the page says so.
    await visitor.sees(/is too narrow for all of them|too far apart for one window|need a look/);
    await subject(1).tap();
    await followed(visitor);
    await visitor.page.getByRole('button', { name: /^Subject 1 [A-Z]/, pressed: false }).waitFor();
  });

  it('follows a box that is drawn around a kite', async () => {
    await shot(visitor, 1);
    for (let n = 0; n < 6; n++) await visitor.page.keyboard.press('Shift+w');
    await visitor.tap('button', 'Draw a box around what matters');
    const { x, y } = await visitor.middleOf('img', 'The master');
    // 60 frames on, the red kite is at 850, 260 of 1920 by 1080; the master is 366 pixels wide.
    const at = (px: number, py: number) => ({
      x: x + ((px - 960) / 1920) * 366,
      y: y + ((py - 540) / 1920) * 366,
    });
    const from = at(690, 180);
    const to = at(960, 580);
    await visitor.swipe(from, to.x - from.x, to.y - from.y);
    await followed(visitor);
    await visitor.page.getByRole('button', { name: /^Subject \d Your box/, pressed: true }).waitFor();
    expect(await shotState(1)).toContain('keyframed');
  });

  it('has all of it after a reload', async () => {
    await visitor.button('Undo: follow').waitFor();
    // A page that is left at once may leave its last change behind: four times something was followed by now.
    const steps = async () => JSON.stringify(await visitor.stored()).split('set-framings/follow').length - 1;
    await expect(async () => (await steps()) >= 4).toBecomeTrue();
    await visitor.page.reload();
    await shot(visitor, 1);
    await panel(visitor, 'Follow');
    await visitor.page.getByRole('button', { name: /^Subject \d Your box/, pressed: true }).waitFor();
    await visitor.button('Undo: follow').waitFor();
  });

  it('is seen whole before it is made: one canvas alone, with its overlay zones, the next by a swipe', async () => {
    await visitor.tap('button', 'See it whole');
    const whole = (name: string) => visitor.page.getByRole('img', { name: `${name}, whole` });
    await whole('Tesselle Portrait').waitFor();
    const box = (await whole('Tesselle Portrait').boundingBox())!;
    // As large as the page allows: from edge to edge.
    expect(box.width).toBeGreaterThan(360);
    await visitor.swipe({ x: 300, y: 400 }, -200);
    await whole('Verrow Short').waitFor();
    await visitor.tap('button', 'Overlay zones of Verrow Short');
    expect(await faultsOf(visitor.page)).toEqual([]);
    await visitor.tap('button', 'Play the clip');
    await visitor.tap('button', 'Pause');
    await visitor.tap('button', 'Back');
    await visitor.page.getByRole('heading', { name: 'Framing', level: 1 }).waitFor();
  });

  it('keeps the kite in the finished files of three canvases', async () => {
    await visitor.step('Length');
    await visitor.type('First frame kept', '00:00:06:00');
    await visitor.type('Last frame kept', '00:00:07:11');
    await visitor.step('Export');
    await visitor.tap('button', 'Export all 3 in one go');
    const files = await visitor.downloadAll(3);
    const whole = blueKite(MASTER, KITE.in, KITE.frames);
    expect(Math.min(...whole)).toBeGreaterThan(300);
    for (const file of files) {
      const [video] = probe(file);
      expect(video).toMatchObject({ nb_frames: String(KITE.frames) });
      expect(cropDetect(file)).toBe(`${video?.width}:${video?.height}:0:0`);
      const shown = blueKite(file, 0, KITE.frames);
      const inside = shown.filter((count, n) => count >= 0.95 * (whole[n] as number)).length;
      expect(inside / KITE.frames).toBeGreaterThanOrEqual(0.98);
    }
    expect(visitor.errors).toEqual([]);
  }, 300_000);
});
