import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { cropDetect, makeClip, probe } from '../tests/make-clip';
import { similarity } from '../tests/ssim';
import { TestServer, Visitor } from './app';

/** Cutting to length with a master of four scenes, on a phone-sized page: each test goes on where the last one ended. */
describe('from a master to clips of the right length', () => {
  const server = new TestServer();
  let visitor: Visitor;
  let clip: string;
  let other: string;

  beforeAll(async () => {
    clip = fourScenes(makeClip('four-scenes.mp4', { size: '64x36', seconds: 1 }));
    other = makeClip('second.mp4', { size: '320x240', rate: '25', seconds: 1, channels: 1 });
    await server.start();
    visitor = await Visitor.arrive(server.origin);
  });
  afterAll(async () => {
    await visitor.leave();
    await server.stop();
  });

  const ranges = () =>
    visitor.page.getByRole('list', { name: 'Ranges in playing order' }).getByRole('listitem').count();
  const length = () => visitor.page.getByLabel('Clip length').textContent();
  const work = (name: string) => visitor.page.getByRole('radio', { name, exact: true }).click();
  const goTo = async (frame: number) => {
    await visitor.page.getByRole('heading', { name: 'Length', level: 1 }).click();
    const boundary = Number(
      /frame (\d+)/.exec((await visitor.page.getByText(/^frame \d+ of/).textContent()) ?? '')?.[1],
    );
    for (let i = 0; i < Math.floor(Math.abs(frame - boundary) / 10); i++)
      await visitor.page.keyboard.press(frame > boundary ? 'Shift+w' : 'Shift+q');
    for (let i = 0; i < Math.abs(frame - boundary) % 10; i++)
      await visitor.page.keyboard.press(frame > boundary ? 'w' : 'q');
  };

  it('looks at the master once and finds its shots, sound and proxy', async () => {
    await visitor.bringIn(clip);
    await visitor.step('Master');
    await visitor.sees('4: 3 cuts, 0 dissolves, 0 fades', 60_000);
    await visitor.has('listitem', /^Loudness: -\d+\.\d LUFS/);
    await visitor.has('listitem', /^Proxy: 640×360/);
    await visitor.sees(/^Too small for 1080×1920: enlarged to 533 %/);
  });

  it('splits, removes, moves and slips ranges, and undoes it all', async () => {
    await visitor.step('Length');
    await goTo(72);
    await visitor.press('Split here');
    await goTo(144);
    await visitor.page.keyboard.press('c');
    expect(await ranges()).toBe(3);
    await visitor.press('Range 1, 0:03.0');
    await visitor.press('Move this range later');
    await visitor.press('Range 1, 0:03.0');
    expect(await visitor.value('First frame kept')).toBe('00:00:03:00');
    await visitor.press('Slip this range one frame on');
    expect(await visitor.value('First frame kept')).toBe('00:00:03:01');
    await visitor.press('Remove this range');
    expect(await ranges()).toBe(2);
    for (const act of ['remove a range', 'slip a range', 'move a range', 'split a range', 'split a range']) {
      await visitor.press(`Undo: ${act}`);
    }
    expect(await ranges()).toBe(0);
    expect(await length()).toBe('0:12.0');
  });

  it('takes times in short forms, and says what is no time', async () => {
    await visitor.type('First frame kept', '1s');
    expect(await visitor.value('First frame kept')).toBe('00:00:00:23');
    await visitor.type('First frame kept', '+2');
    expect(await visitor.value('First frame kept')).toBe('00:00:01:01');
    await visitor.type('Last frame kept', '0:10');
    expect(await visitor.value('Last frame kept')).toBe('00:00:09:23');
    await visitor.type('Last frame kept', '99:99');
    await visitor.sees(/“99:99” is not a time\. Type a timecode/);
    await visitor.type('Last frame kept', '00:10:00:00');
    await visitor.sees(/“00:10:00:00” is outside the master\. It ends at /);
    expect(await visitor.value('Last frame kept')).toBe('00:10:00:00');
    for (let i = 0; i < 3; i++) await visitor.press(/^Undo/);
  });

  it('changes shots: adds, merges, moves, and finds them again', async () => {
    await work('Shots');
    await goTo(100);
    await visitor.press('Start a shot here');
    await visitor.sees('Shot 3 of 5. Begins where you or a list put it.');
    await visitor.press('Merge this shot with the one before');
    await visitor.sees(/^Shot 2 of 4\. Begins with a cut/);
    await goTo(75);
    await visitor.press('Move the nearest cut here');
    await visitor.sees('Shot 2 of 4. Begins where you or a list put it.');
    await visitor.press('Use the shots that were found');
    await visitor.sees(/^Shot 2 of 4\. Begins with a cut/);
  });

  it('proposes ways to a length, plays one before it is taken, and takes it', async () => {
    await work('To length');
    await visitor.type('Seconds', '6');
    const proposals = visitor.page.getByRole('listitem', { name: /^(The|All)/ });
    await proposals.first().waitFor();
    expect(await proposals.count()).toBeLessThanOrEqual(3);
    await visitor.press('Play it');
    await visitor.button('Pause').waitFor();
    await visitor.press('Pause');
    expect(await length()).toBe('0:12.0');
    await visitor.press('Use it');
    expect(Number((await length())?.slice(2))).toBeLessThanOrEqual(6);
    expect(Number((await length())?.slice(2))).toBeGreaterThan(5);
    await visitor.press('Undo: fit to a length');
  });

  it('splits a long cut into parts, each a clip of its own with its number', async () => {
    await visitor.type('Longest part', '5');
    await visitor.press('Split into parts');
    await visitor.sees(/3 parts were made/);
    for (const n of [1, 2, 3]) await visitor.button(new RegExp(`^Clip four scenes, ${n} of 3 `)).waitFor();
    // Divided at the cuts near the even split.
    await visitor.press(/^Clip four scenes, 2 of 3 /);
    await work('Cut');
    expect(await visitor.value('First frame kept')).toBe('00:00:03:00');
    await visitor.step('Export');
    await visitor.exportClip();
    const { name, file } = await visitor.download();
    expect(name).toBe('four-scenes-2-of-3_verrow-short_1080x1920.mp4');
    const [video] = probe(file);
    const frames = Number(video?.nb_frames);
    // Judged from outside: the same frames, cropped and scaled by ffmpeg.
    const reference = `trim=start_frame=72:end_frame=${72 + frames},crop=204:360:218:0,scale=1088:1920:flags=lanczos,crop=1080:1920:4:0`;
    expect(similarity(file, clip, reference).mean).toBeGreaterThan(0.93);
    await visitor.step('Length');
    await visitor.press(/^Clip four scenes \d/);
    await visitor.step('Export');
    expect(await visitor.button('Download').count()).toBe(0);
  });

  it('takes a cut list as the cut, tells what it could not use, and writes one', async () => {
    const list = path.join(path.dirname(clip), 'list.edl');
    writeFileSync(
      list,
      [
        'TITLE: four scenes',
        '001  FOURSCEN V     C        01:00:06:00 01:00:07:00 01:00:00:00 01:00:01:00',
        '002  FOURSCEN V     C        01:00:00:00 01:00:02:00 01:00:01:00 01:00:03:00',
        '003  FOURSCEN A     C        01:00:00:00 01:00:02:00 01:00:01:00 01:00:03:00',
      ].join('\n'),
    );
    await visitor.step('Length');
    await work('Lists');
    await visitor.pick(list, 'Open a cut list');
    await visitor.sees('list.edl: 2 events, 1 notes');
    await visitor.press('Take it as the cut');
    await visitor.sees('Line 4 is of track A: only pictures are used.');
    expect(await ranges()).toBe(2);
    const [download] = await Promise.all([
      visitor.page.waitForEvent('download'),
      visitor.press('Cut as .otio'),
    ]);
    const written = path.join(path.dirname(clip), 'written.otio');
    await download.saveAs(written);
    expect(readFileSync(written, 'utf8')).toContain('"OTIO_SCHEMA": "Timeline.1"');
    await visitor.press('Undo: use a cut list');
    expect(await ranges()).toBe(0);
    await visitor.pick(written, 'Open a cut list');
    await visitor.press('Take it as the cut');
    await visitor.sees('Everything in it could be used.');
    expect(await ranges()).toBe(2);
    const bad = path.join(path.dirname(clip), 'bad.otio');
    writeFileSync(bad, readFileSync(written, 'utf8').slice(0, 300));
    await visitor.pick(bad, 'Open a cut list');
    await visitor.sees('bad.otio could not be read.');
    await visitor.sees(/^Line \d+ is not JSON/);
  });

  it('takes ranges from a second master of another size and rate, and exports both', async () => {
    await visitor.step('Master');
    const [chooser] = await Promise.all([
      visitor.page.waitForEvent('filechooser'),
      visitor.press('Add another master'),
    ]);
    await chooser.setFiles(other);
    await visitor.button('Master second.mp4').waitFor();
    await visitor.step('Length');
    await work('Shots');
    await visitor.press('Keep this shot in the cut');
    await work('Cut');
    expect(await ranges()).toBe(3);
    // 1 s and 2 s of the first master and 1 s of the second.
    expect(await length()).toBe('0:04.0');
    await visitor.step('Check');
    await visitor.has('listitem', 'Frame rate: note');
    await visitor.step('Export');
    await visitor.exportClip();
    await visitor.sees('Read back: as asked');
    const { file } = await visitor.download();
    const [video, audio] = probe(file);
    expect(video).toMatchObject({ width: 1080, height: 1920, r_frame_rate: '24000/1001', nb_frames: '96' });
    // The master is mono, and the outlet wants two channels.
    expect(audio).toMatchObject({ sample_rate: '48000', channels: 2 });
    expect(cropDetect(file)).toBe('1080:1920:0:0');
  });

  it('had no error on the page', () => {
    expect(visitor.errors).toEqual([]);
  });
});

/** Four shots of the demo film, 72 frames each, cut hard, with a tone; in the place of a clip that is there. */
function fourScenes(file: string): string {
  const shots = [0, 288, 576, 816].map((from) => `between(n,${from},${from + 71})`).join('+');
  const picture = ['-vf', `select='${shots}',setpts=N/(24000/1001)/TB,scale=640:360`, '-r', '24000/1001'];
  const sound = ['-f', 'lavfi', '-i', 'sine=f=330:r=48000:d=12.012', '-map', '0:v', '-map', '1:a'];
  const codecs = ['-c:v', 'libx264', '-crf', '16', '-g', '48', '-c:a', 'aac', '-b:a', '96k'];
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-i',
    'public/demo/kite-day.mp4',
    ...sound,
    ...picture,
    ...codecs,
    file,
  ]);
  return file;
}
