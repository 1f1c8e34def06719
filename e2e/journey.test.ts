import { readFileSync } from 'node:fs';
import { cropDetect, makeClip, probe } from '../tests/make-clip';
import { similarity } from '../tests/ssim';
import { lagOf, soundOf } from '../tests/sound-lag';
import { TestServer, Visitor } from './app';

/** The whole way with a clip of one's own, on a phone-sized page: each test goes on where the last one ended. */
describe('from an edit to a post', () => {
  const server = new TestServer();
  let visitor: Visitor;
  let clip: string;
  let made: string;

  beforeAll(async () => {
    clip = makeClip('my-edit.mp4', { size: '1920x1080', seconds: 5, sweep: true });
    await server.start();
    visitor = await Visitor.arrive(server.origin);
  });
  afterAll(async () => {
    await visitor.leave();
    await server.stop();
  });

  it('lists the demo and the way in', async () => {
    await visitor.sees('Kite Day at Windle Bay');
    expect(await visitor.button('Open the demo').isVisible()).toBe(true);
  });

  it('brings a file in and shows its facts and a frame', async () => {
    await visitor.bringIn(clip);
    for (const fact of [
      'Size: 1920×1080',
      'Ratio: 16:9',
      'Frame rate: 23.976 fps',
      'Length: 00:00:05:00',
      'Picture: H.264 High',
      'Sound: AAC 48 kHz stereo',
    ]) {
      await visitor.has('listitem', fact);
    }
    await visitor.has('listitem', `File: MP4, ${(readFileSync(clip).length / 1e6).toFixed(1)} MB`);
    await visitor.has('img', 'A frame of the master');
  });

  it('changes the canvas and loses nothing', async () => {
    await visitor.step('Canvas');
    const chosen = (name: string) => visitor.page.getByRole('radio', { name }).getAttribute('aria-checked');
    expect(await chosen('Verrow Short')).toBe('true');
    await visitor.page.getByRole('radio', { name: 'Tesselle Portrait' }).click();
    expect(await chosen('Tesselle Portrait')).toBe('true');
    await visitor.press(/^Undo: choose the canvas/);
    expect(await chosen('Verrow Short')).toBe('true');
  });

  it('cuts to the frame by timecode, by keys and by dragging, and undoes it', async () => {
    await visitor.step('Length');
    await visitor.type('First frame kept', '00:00:00:12');
    await visitor.type('Last frame kept', '00:00:04:03');
    await visitor.sees('88 frames');
    const out = visitor.page.getByRole('slider', { name: 'Out point' });
    const { x, y } = await visitor.middleOf('slider', 'Out point');
    await visitor.drag({ x: x + 16, y: y - 30 }, -60);
    const dragged = Number(await out.getAttribute('aria-valuenow'));
    expect(dragged).toBeLessThan(90);
    await out.press('ArrowRight');
    expect(Number(await out.getAttribute('aria-valuenow'))).toBe(dragged + 1);
    // Two steps: the drag, and the key.
    await visitor.press(/^Undo/);
    await visitor.press(/^Undo/);
    await visitor.sees('88 frames');
    await visitor.press(/^Redo/);
    await visitor.press(/^Undo/);
    await visitor.page.keyboard.press('w');
    await visitor.type('Last frame kept', 'nonsense');
    await visitor.sees(/“nonsense” is not a time/);
    await visitor.type('Last frame kept', '00:00:04:03');
    await visitor.sees('88 frames');
  });

  it('marks in and out at the playhead by keys', async () => {
    await visitor.page.getByRole('slider', { name: 'In point' }).press('ArrowRight');
    expect(await visitor.value('First frame kept')).toBe('00:00:00:13');
    await visitor.page.getByRole('heading', { name: 'Length', level: 1 }).click();
    await visitor.page.keyboard.press('q');
    await visitor.page.keyboard.press('a');
    expect(await visitor.value('First frame kept')).toBe('00:00:00:12');
  });

  it('plays in step and stops at the out point', async () => {
    await visitor.press('Play');
    await visitor.button('Pause').waitFor();
    await visitor.button('Play').waitFor({ timeout: 30_000 });
    // The last frame kept is 4 × 24 + 3.
    const shown = (await visitor.page.getByLabel('Playhead', { exact: true }).textContent()) ?? '';
    expect(shown).toMatch(/00:00:0(3:2\d|4:0[0-3])/);
  });

  it('frames by dragging, wheel, arrows and numbers, never past the picture', async () => {
    await visitor.step('Framing');
    expect(await visitor.value('From left')).toBe('656.25');
    const middle = await visitor.middleOf('img', 'The master');
    await visitor.drag(middle, 400);
    expect(await visitor.value('From left')).toBe('1312.5');
    await visitor.page.keyboard.press('ArrowLeft');
    await visitor.page.keyboard.press('Shift+ArrowLeft');
    expect(await visitor.value('From left')).toBe('1301.5');
    await visitor.page.mouse.move(middle.x + 80, middle.y);
    await visitor.page.mouse.wheel(0, -200);
    await expect(async () => Number(await visitor.value('Zoom')) > 1.2).toBecomeTrue();
    const before = Number(await visitor.value('From left'));
    await visitor.drag(await visitor.middleOf('img', 'Verrow Short'), 30);
    expect(Number(await visitor.value('From left'))).toBeLessThan(before);
    await visitor.type('Zoom', '1');
    await visitor.type('From left', '402.25');
    await visitor.page.getByLabel(/^Margin left, right: 402, 910 px/).waitFor();
    await visitor.page.getByLabel('Enlarged to: 177.8 %').waitFor();
  });

  it('keeps everything over a reload, undo too', async () => {
    await visitor.page.reload();
    await visitor.button(/^Undo: move the window/).waitFor();
    expect(await visitor.value('From left')).toBe('402.25');
  });

  it('checks, and a tap fixes what is wrong', async () => {
    await visitor.step('Framing');
    await visitor.press('Fit, with bars');
    await visitor.step('Check');
    await visitor.has('listitem', 'Every frame filled: stop');
    expect(await visitor.button('The export is kept back').isDisabled()).toBe(true);
    await visitor.press('Fill the canvas');
    await visitor.has('listitem', 'Every frame filled: pass');
    await visitor.has('listitem', 'Required tag: stop');
    await visitor.override('Required tag');
    await visitor.has('listitem', 'Required tag: overridden');
    await visitor.press('Apply “Required tag” again');
    await visitor.press('Add #upright');
    await visitor.has('listitem', 'Required tag: pass');
    await visitor.press('Say that it is not made for children');
    await visitor.has('listitem', 'Statement on children: pass');
    for (const rule of ['Size', 'Ratio', 'Frame rate', 'Enlargement', 'File size', 'Sound', 'Title']) {
      await visitor.has('listitem', `${rule}: pass`);
    }
  });

  it('exports with progress while another page is used, and reads the file back', async () => {
    await visitor.press('Go to the export');
    await visitor.setBitRate('8');
    await visitor.press('Export to MP4');
    await visitor.page.getByRole('progressbar').waitFor();
    await visitor.step('Check');
    await visitor.step('Export');
    await visitor.button('Download').waitFor({ timeout: 120_000 });
    await visitor.sees('Read back: as asked');
    await visitor.has('row', /^Black borders in 88 decoded frames: none/);
    const { name, file } = await visitor.download();
    expect(name).toBe('my-edit_verrow-short_1080x1920.mp4');
    made = file;
  });

  // Judged from outside: ffprobe.
  it('made a file that ffprobe finds as asked', () => {
    const [video, audio] = probe(made);
    expect(video).toMatchObject({
      codec_name: 'h264',
      profile: 'High',
      width: 1080,
      height: 1920,
      pix_fmt: 'yuv420p',
      color_range: 'tv',
      color_space: 'bt709',
      color_transfer: 'bt709',
      color_primaries: 'bt709',
      field_order: 'progressive',
      r_frame_rate: '24000/1001',
      avg_frame_rate: '24000/1001',
      nb_frames: '88',
      level: 40,
      start_pts: 0,
      time_base: '1/24000',
      duration_ts: 88 * 1001,
    });
    expect(audio).toMatchObject({ codec_name: 'aac', sample_rate: '48000', channels: 2 });
    expect(Number(audio?.start_time)).toBe(0);
    // The index stands before the data, so that playing starts at once.
    const bytes = readFileSync(made);
    expect(bytes.indexOf('moov')).toBeLessThan(bytes.indexOf('mdat'));
  });

  // Judged from outside: ffmpeg's cropdetect.
  it('has no bars', () => {
    expect(cropDetect(made)).toBe('1080:1920:0:0');
  });

  // Judged from outside: the same 88 frames cropped and scaled by ffmpeg. 612×1080 at 400 scaled by 16/9 to
  // 1088×1920 and cropped by 4 is exactly the window at 402.25.
  it('shows exactly the frames and the window that were asked for', () => {
    const reference =
      'trim=start_frame=12:end_frame=100,crop=612:1080:400:0,scale=1088:1920:flags=lanczos:in_h_chr_pos=0:out_h_chr_pos=0:in_v_chr_pos=128:out_v_chr_pos=128,crop=1080:1920:4:0';
    const { mean, worst, frames } = similarity(made, clip, reference);
    expect(frames).toBe(88);
    expect(mean).toBeGreaterThanOrEqual(0.97);
    expect(worst).toBeGreaterThanOrEqual(0.95);
  });

  it('has the sound of those frames, to the sample', () => {
    // Frame 12 starts at 12 × 1001/24000 s: sample 24024 at 48 kHz.
    expect(lagOf(soundOf(clip, 24024, 96000), soundOf(made, 0, 96000))).toBe(0);
  });

  it('posts it, and the outlet shows and plays it', async () => {
    await visitor.press('Post it');
    await visitor.signIn('Verrow', 'odlin');
    await visitor.page.getByLabel('Title', { exact: true }).fill('My edit, upright');
    await visitor.press('Post to Verrow as Odlin Marrable');
    await visitor.sees('“My edit, upright” is up on Verrow. Only you see it.', 60_000);
    await visitor.page.goto('/outlets/verrow/');
    await visitor.sees('Private: only you see it');
    const video = visitor.page.locator('video');
    await video.evaluate(async (element: HTMLVideoElement) => {
      element.muted = true;
      await element.play();
    });
    await expect(
      async () => (await video.evaluate((element: HTMLVideoElement) => element.currentTime)) > 0.3,
    ).toBecomeTrue();
    expect(visitor.errors).toEqual([]);
  });
});
