import { execFileSync, spawnSync } from 'node:child_process';
import path from 'node:path';
import { cropDetect, makeClip, probe, turnClip } from '../tests/make-clip';
import { similarity } from '../tests/ssim';
import { atTheApp, CANVAS } from './app';

describe('a master that is not as it should be', () => {
  const here = atTheApp();

  /** Brings a file in, and waits until it was looked at. */
  async function lookAt(file: string): Promise<void> {
    await here.visitor.page.goto('/');
    await here.visitor.bringIn(file);
    await here.visitor.step('Master');
    await here.visitor.page.getByRole('listitem', { name: /^Proxy: / }).waitFor({ timeout: 90_000 });
  }
  const problem = (name: RegExp) =>
    here.visitor.page.getByRole('list', { name: 'Diagnosis' }).getByRole('listitem', { name });

  async function exported(): Promise<string> {
    await here.visitor.resizeCanvas();
    await here.visitor.step('Export');
    await here.visitor.exportClip();
    return (await here.visitor.download()).file;
  }

  it('with baked-in bars is filled to the edge: its live area is taken by itself, and can be taken back', async () => {
    const bars = 'scale=1920:800,pad=1920:1080:0:140:black,setsar=1';
    const file = makeClip('barred.mp4', { size: '1920x1080', seconds: 2, filter: bars });
    await lookAt(file);
    await problem(/^Live area: 1920×800/).waitFor();
    // A picture of before and after says what was taken.
    await here.visitor.page.getByLabel('With the edges').waitFor();
    await here.visitor.press('Undo this repair');
    await problem(/^Bars are part of the picture: 1920×800/).waitFor();
    await here.visitor.step('Check');
    await here.visitor.has('listitem', 'Bars in the master: stop');
    await here.visitor.press('Use the edges that were found');
    await here.visitor.has('listitem', 'Bars in the master: pass');
    const made = await exported();
    // Judged from outside: cropdetect, and ffmpeg's own crop of the same window.
    expect(cropDetect(made)).toBe(`${CANVAS.width}:${CANVAS.height}:0:0`);
    const reference = `crop=450:800:735:140,scale=${CANVAS.width}:${CANVAS.height}:flags=lanczos`;
    expect(similarity(made, file, reference).mean).toBeGreaterThan(0.95);
    await here.visitor.step('Master');
    await here.visitor.press('Undo all repairs');
    await problem(/^Bars are part of the picture/).waitFor();
    // The job sheet asks, until it is answered either way.
    await here.visitor.press('Job sheet');
    await here.visitor.sees('Are these edges bars?');
    await here.visitor.press('They are part of the picture');
    await here.visitor.page.getByText('Are these edges bars?').waitFor({ state: 'hidden' });
    await here.visitor.step('Master');
  });

  it('of which an edge is typed keeps its windows inside that edge', async () => {
    await here.visitor.press('Set the live area');
    await here.visitor.type('Bar top', '140');
    await here.visitor.type('Bar bottom', '100');
    await problem(/^Live area: 1920×840/).waitFor();
    await here.visitor.step('Framing');
    // 840 live rows of 1080: the widest window of 9:16 is 472.5 pixels wide.
    expect(Number(await here.visitor.value('From top'))).toBe(140);
    expect(Number(await here.visitor.value('From left'))).toBeCloseTo((1920 - 472.5) / 2, 1);
  });

  it('that is turned by its file is turned back by a repair, and the other way round', async () => {
    const file = turnClip(makeClip('turned.mp4', { size: '1280x720', seconds: 1 }));
    await lookAt(file);
    await problem(/^The picture is turned by 90°/).waitFor();
    await here.visitor.has('listitem', 'Size: 720×1280');
    await problem(/^Already tall/).waitFor();
    await here.visitor.press('Not turned');
    await here.visitor.has('listitem', 'Size: 1280×720');
    await problem(/^The picture is not turned/).waitFor();
    const made = await exported();
    const reference = `crop=405:720:437:0,scale=${CANVAS.width}:${CANVAS.height}:flags=lanczos`;
    expect(
      similarity(made, makeClip('upright.mp4', { size: '1280x720', seconds: 1 }), reference).mean,
    ).toBeGreaterThan(0.9);
  });

  it('with two fields is drawn as whole frames', async () => {
    const options = {
      size: '1280x720',
      rate: '50',
      seconds: 2,
      filter: "crop=1200:720:'40+30*sin(n/4)':0,scale=1280:720,setsar=1,tinterlace=interleave_top",
    };
    const file = makeClip('fields.mp4', {
      ...options,
      output: ['-flags', '+ilme+ildct', '-x264opts', 'tff=1'],
    });
    await lookAt(file);
    await problem(/^Interlaced: \d+ % of moving frames comb/).waitFor();
    await here.visitor.sees(/The top field comes first/);
    await here.visitor.press('Deinterlace');
    await problem(/^Interlaced, and deinterlaced here/).waitFor();
    const made = await exported();
    expect(probe(made)[0]).toMatchObject({ field_order: 'progressive', r_frame_rate: '25/1' });
    // Judged from outside: ffmpeg's idet finds next to no frame of two fields any more.
    const fieldFrames = (of: string) => {
      const { stderr } = spawnSync(
        'ffmpeg',
        ['-hide_banner', '-i', of, '-vf', 'idet', '-an', '-f', 'null', '-'],
        { encoding: 'utf8' },
      );
      const found = [.../Multi frame detection: TFF:\s*(\d+) BFF:\s*(\d+) Progressive:\s*(\d+)/.exec(stderr)!]
        .slice(1)
        .map(Number);
      return (found[0]! + found[1]!) / Math.max(1, found[0]! + found[1]! + found[2]!);
    };
    expect(fieldFrames(file)).toBeGreaterThan(0.5);
    expect(fieldFrames(made)).toBeLessThan(0.1);
  });

  it('that the browser cannot decode is converted on the server, with size, rate and timing kept', async () => {
    const file = path.join(path.dirname(makeClip('any.mp4', { size: '64x36' })), 'coded-otherwise.mp4');
    const source = ['-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=30000/1001:d=2'];
    execFileSync('ffmpeg', ['-y', '-v', 'error', ...source, '-c:v', 'mpeg4', '-q:v', '3', file]);
    await here.visitor.page.goto('/');
    await here.visitor.pick(file);
    await here.visitor.sees(/This browser cannot decode MPEG-4 Part 2/);
    await here.visitor.press('Convert it on the server');
    await here.visitor.page.waitForURL(/\/job\/[^/]+$/, { timeout: 60_000 });
    for (const fact of [
      'Size: 640×360',
      'Frame rate: 29.97 fps',
      'Length: 00:00:02:00',
      'Picture: H.264 High',
    ]) {
      await here.visitor.has('listitem', fact);
    }
    expect(here.visitor.errors).toEqual([]);
  });
});
