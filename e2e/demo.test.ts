import { cropDetect, probe } from '../tests/make-clip';
import { similarity } from '../tests/ssim';
import { lagOf, soundOf } from '../tests/sound-lag';
import { TestServer, Visitor, WIDE } from './app';

const MASTER = 'public/demo/kite-day.mp4';

describe('the demo job', () => {
  const server = new TestServer();
  let visitor: Visitor;
  beforeAll(() => server.start());
  afterEach(() => visitor.leave());
  afterAll(() => server.stop());

  it('goes all the way to the outlet', async () => {
    visitor = await Visitor.arrive(server.origin);
    await visitor.press('Open the demo');
    await visitor.has('listitem', 'Length: 00:00:41:00');
    await visitor.step('Canvas');
    await visitor.has('radio', 'Verrow Short');
    await visitor.step('Length');
    // The paper windmill stands still from frame 576 to 695.
    await visitor.type('First frame kept', '00:00:27:00');
    await visitor.type('Last frame kept', '00:00:27:23');
    await visitor.sees('24 frames');
    await visitor.step('Framing');
    await visitor.sees('Shot 5 of 7, Verrow Short');
    await visitor.type('From left', '1202.25');
    await visitor.step('Check');
    await visitor.press('Add #upright');
    await visitor.has('listitem', 'Required tag: pass');
    await visitor.step('Export');
    await visitor.setBitRate('8');
    await visitor.exportClip();
    const { name, file } = await visitor.download();
    expect(name).toBe('kite-day-at-windle-bay_verrow-short_1080x1920.mp4');
    const [video] = probe(file);
    expect(video).toMatchObject({
      profile: 'High',
      width: 1080,
      height: 1920,
      nb_frames: '24',
      avg_frame_rate: '24000/1001',
    });
    expect(cropDetect(file)).toBe('1080:1920:0:0');
    const window =
      'trim=start_frame=648:end_frame=672,crop=612:1080:1200:0,' +
      'scale=1088:1920:flags=lanczos:in_h_chr_pos=0:out_h_chr_pos=0:in_v_chr_pos=128:out_v_chr_pos=128,crop=1080:1920:4:0';
    const { mean, worst, frames } = similarity(file, MASTER, window);
    expect(frames).toBe(24);
    expect(mean).toBeGreaterThanOrEqual(0.97);
    expect(worst).toBeGreaterThanOrEqual(0.95);
    // Frame 648 starts at 648 × 1001/24000 s: sample 1297296 at 48 kHz.
    expect(lagOf(soundOf(MASTER, 1_297_296, 45_000), soundOf(file, 0, 45_000))).toBe(0);
    await visitor.press('Post it');
    await visitor.signIn('Verrow', 'odlin');
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees('“Kite Day at Windle Bay” is up on Verrow. Only you see it.', 60_000);
    expect(visitor.errors).toEqual([]);
  });

  it('shows sheet, pictures and controls at once on a wide screen', async () => {
    visitor = await Visitor.arrive(server.origin, WIDE);
    await visitor.openDemo();
    const steps = visitor.page.getByRole('navigation', { name: 'Steps' });
    await steps.getByRole('link', { name: /^Framing:/ }).click();
    await visitor.sees('Shot 1 of 7, Verrow Short');
    for (const place of [
      steps,
      visitor.page.getByRole('img', { name: 'The master' }),
      visitor.page.getByLabel('Zoom'),
    ]) {
      const box = await place.boundingBox();
      expect(box && box.x >= 0 && box.y >= 0 && box.x + box.width <= 1280 && box.y + box.height <= 800).toBe(
        true,
      );
    }
    const scrolls = await visitor.page.evaluate(() =>
      [...document.querySelectorAll('[role="main"]')].some(
        (element) => element.scrollHeight > element.clientHeight + 1,
      ),
    );
    expect(scrolls).toBe(false);
    await visitor.page.keyboard.press('?');
    await visitor.sees('The range starts here, ends here');
  });

  it('pinches the window by touch', async () => {
    visitor = await Visitor.arrive(server.origin, undefined, true);
    await visitor.openDemo();
    await visitor.step('Framing');
    const { x, y } = await visitor.middleOf('img', 'The master');
    const session = await visitor.context.newCDPSession(visitor.page);
    const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number) =>
      session.send('Input.dispatchTouchEvent', {
        type,
        touchPoints:
          type === 'touchEnd'
            ? []
            : [
                { x: x - apart, y, id: 1 },
                { x: x + apart, y, id: 2 },
              ],
      });
    await touch('touchStart', 30);
    for (let apart = 32; apart <= 90; apart += 4) await touch('touchMove', apart);
    await touch('touchEnd', 90);
    await expect(async () => Number(await visitor.value('Zoom')) > 1.5).toBecomeTrue();
  });

  it('gives every control a role and a name, and a target large enough to touch', async () => {
    visitor = await Visitor.arrive(server.origin);
    await visitor.openDemo();
    for (const title of ['Canvas', 'Length', 'Framing', 'Check', 'Export', 'Post']) {
      await visitor.step(title);
      await visitor.page.waitForTimeout(600);
      const faults = await visitor.page.evaluate(() =>
        [...document.querySelectorAll('button, a, input, textarea, [tabindex="0"]')]
          .filter((element) => element.getClientRects().length > 0)
          .filter((element) => {
            const name = element.getAttribute('aria-label') ?? element.textContent ?? '';
            const role =
              element.getAttribute('role') ??
              { BUTTON: 'button', A: 'link', INPUT: 'textbox', TEXTAREA: 'textbox' }[element.tagName];
            const box = element.getBoundingClientRect();
            return (
              !role ||
              !name.trim() ||
              Math.max(box.width, box.height) < 40 ||
              Math.min(box.width, box.height) < 36
            );
          })
          .map((element) => element.outerHTML.slice(0, 200)),
      );
      expect({ title, faults }).toEqual({ title, faults: [] });
    }
  });
});
