import { makeClip, probe } from '../tests/make-clip';
import { psnr } from '../tests/psnr';
import { lagOf, soundOf } from '../tests/sound-lag';
import { similarity } from '../tests/ssim';
import { drawn } from '../tests/soak';
import { atTheApp, CANVAS } from './app';
import { OtherVisitor } from './other-visitor';

/** The whole way in the other engine, on a phone-sized page: each test goes on where the last one ended. */
describe('from an edit to a post in Firefox', () => {
  const here = atTheApp();
  let visitor: OtherVisitor;
  let clip: string;
  let made: string;

  beforeAll(async () => {
    clip = makeClip('other.mp4', { size: '640x360', seconds: 2, sweep: true });
    visitor = await OtherVisitor.arrive(here.server.origin);
  });
  afterAll(() => visitor.leave());

  it('brings in, exports and reads back', async () => {
    made = await visitor.exportOf(clip);
    await visitor.sees('Read back: as asked');
  });

  // Judged from outside: ffprobe.
  it('made a file as asked, its stamps in order', () => {
    const [video, audio] = probe(made);
    expect(video).toMatchObject({
      codec_name: 'h264',
      profile: 'High',
      width: 1080,
      height: 1920,
      color_space: 'bt709',
      color_range: 'tv',
      r_frame_rate: '24000/1001',
      nb_frames: '48',
      start_pts: 0,
      duration_ts: 48 * 1001,
    });
    expect(audio).toMatchObject({ codec_name: 'aac', sample_rate: '48000', channels: 2 });
    expect(Number(audio?.start_time)).toBe(0);
  });

  it('has the pictures that Chromium makes, and the sound to the sample', async () => {
    const { mean, worst, frames } = similarity(made, await here.visitor.exportOf(clip), 'null');
    expect(frames).toBe(48);
    expect(mean).toBeGreaterThanOrEqual(0.97);
    expect(worst).toBeGreaterThanOrEqual(0.95);
    expect(lagOf(soundOf(clip, 0, 72000), soundOf(made, 0, 72000))).toBe(0);
  });

  it('plays what the pass made small', async () => {
    await visitor.step('Length');
    await visitor.press('Play');
    await visitor.has('button', 'Pause');
    await visitor.has('button', 'Play');
    // Its last frame is number 47; playing may leave some out.
    expect(await visitor.textOf('Playhead')).toMatch(/00:00:01:(1\d|2[0-3])/);
  });

  it('posts it, and the outlet takes it', async () => {
    await visitor.step('Check');
    await visitor.press('Add #upright');
    await visitor.has('listitem', 'Required tag: pass');
    await visitor.press('Say that it is not made for children');
    await visitor.step('Export');
    await visitor.press('Post it');
    await visitor.type('Title', 'Made elsewhere');
    await visitor.press('Sign in to Verrow');
    await visitor.fill('#login', 'odlin');
    await visitor.fill('#password', 'kite-day');
    await visitor.press('Sign in and allow');
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees('“Made elsewhere” is up on Verrow.');
  });

  const bars = ['white', 'yellow', 'lime', 'magenta', 'blue', 'gray'].map(
    (colour, i) => `drawbox=x=0:y=${i * 60}:w=640:h=60:color=${colour}:t=fill`,
  );
  const film = (name: string, matrix: string, space: string, range: string) =>
    makeClip(`${name}.mp4`, {
      size: '640x360',
      seconds: 0.5,
      channels: 0,
      filter: `format=gbrp,${bars.join(',')},scale=out_color_matrix=${matrix}:out_range=${range}`,
      output: ['-c:v', 'libx264', '-colorspace', space, '-color_range', range],
    });

  const asInChromium = async (name: string, matrix: string, space: string) => {
    const master = film(name, matrix, space, 'tv');
    const [other, ours] = [
      await visitor.exportOf(master, CANVAS),
      await here.visitor.exportOf(master, CANVAS),
    ];
    expect(psnr(other, ours)).toBeGreaterThanOrEqual(40);
  };
  // It decodes every range as the limited one, and what it cuts off is lost.
  const fullRange = async () => {
    const master = film('full', 'bt709', 'bt709', 'pc');
    await visitor.goHome();
    await visitor.drop(master);
    expect(await visitor.refusal()).toMatch(/this browser cuts off the darkest and the lightest/);
    await visitor.press('Convert it on the server');
    await visitor.page.waitForFunction(() => /\/job\/[^/]+$/.test(location.pathname));
    await visitor.resizeCanvas(CANVAS);
    await visitor.step('Export');
    await visitor.press('Export to MP4');
    await visitor.has('button', 'Download');
    const other = await visitor.download();
    expect(psnr(other, await here.visitor.exportOf(master, CANVAS))).toBeGreaterThanOrEqual(40);
  };
  const colours: [string, () => Promise<void>][] = [
    ['shows bars of BT.709 as Chromium does', () => asInChromium('BT.709', 'bt709', 'bt709')],
    ['shows bars of BT.601 as Chromium does', () => asInChromium('BT.601', 'bt601', 'smpte170m')],
    ['refuses full range, and has it converted', fullRange],
  ];
  it.each(drawn(colours, 1))('%s', (_, holds) => holds());

  it('found nothing to complain of', () => {
    expect(visitor.errors).toEqual([]);
  });
});
