import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { drawn } from '../tests/soak';
import { faultsOf } from '../tests/axe';
import { filmed } from '../tests/make-filmed';
import { atTheApp } from './app';

const FOLDER = mkdtempSync(path.join(tmpdir(), 'back-'));
const X264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20', '-pix_fmt', 'yuv420p'];

/** Changes made to a file, with the words that must be said of each. */
const DONE: [name: string, args: (file: string) => string[], says: RegExp[]][] = [
  ['written anew', () => ['-c', 'copy', '-map_metadata', '-1'], [/written anew/]],
  [
    'made smaller, slower and compressed',
    () => ['-vf', 'scale=540:960,fps=12', ...X264, '-c:a', 'copy'],
    [
      /made smaller: 540×960; 1080×1920 was sent/,
      /fewer frames: 12 frames a second; 24 were sent/,
      /compressed again/,
    ],
  ],
  [
    'cut by 3 frames at its end',
    () => ['-vf', 'trim=end_frame=33', ...X264, '-c:a', 'copy'],
    [/It was cut: 3 frames at the end\./],
  ],
  [
    'cut by 3 frames at its beginning',
    () => ['-vf', 'trim=start_frame=3,setpts=PTS-STARTPTS', ...X264, '-an'],
    [/It was cut: 3 frames at the beginning\./, /no sound any more/],
  ],
  [
    'thinned out unevenly, with a sound that cannot be decoded here',
    () => ['-vf', "select='mod(n,5)-3'", '-fps_mode', 'vfr', ...X264, '-c:a', 'ac3'],
    [/compressed again/, /sound was compressed again/],
  ],
  ['turned', () => ['-vf', 'transpose=1', ...X264, '-c:a', 'copy'], [/It was turned by 90°/]],
  ['muted', () => ['-c', 'copy', '-an'], [/no sound any more/]],
  [
    'given another sound',
    () => ['-c:v', 'copy', '-af', "volume='if(lt(mod(t,0.4),0.2),1,0.02)':eval=frame", '-c:a', 'aac'],
    [/another sound/],
  ],
];

describe('a file that came back', () => {
  const there = atTheApp();
  let file: string;
  beforeAll(async () => {
    const { visitor } = there;
    file = await visitor.exportOf(filmed('comes back', 'null', { seconds: 1.5 }));
    await visitor.press('Did it come through?');
  });

  const look = async (back: string) => {
    await there.visitor.pick(back, 'Choose the file that came back');
    await there.visitor.page.getByRole('table', { name: 'What left, and what came back' }).waitFor();
  };

  it('is known when it is the export, bit for bit', async () => {
    await look(file);
    await there.visitor.sees(/^It came through: bit for bit/);
    expect(await faultsOf(there.visitor.page)).toEqual([]);
  });

  it.each(drawn(DONE, 2))('is known when it was %s', async (name, args, says) => {
    const back = path.join(FOLDER, `${name.replaceAll(' ', '-')}.mp4`);
    execFileSync('ffmpeg', ['-y', '-v', 'error', '-i', file, ...args(file), back]);
    await look(back);
    for (const words of says) await there.visitor.sees(words, 5000);
    if (!/^cut/.test(name)) expect(await there.visitor.page.getByText(/It was cut/).count()).toBe(0);
    expect(await there.visitor.page.getByText(/is silence/).count()).toBe(0);
  });

  it('is known when it is another film, and when it is none', async () => {
    const { visitor } = there;
    const other = path.join(FOLDER, 'other.mp4');
    const bars = ['-f', 'lavfi', '-i', 'testsrc2=size=540x960:rate=24:duration=2.5'];
    execFileSync('ffmpeg', ['-y', '-v', 'error', ...bars, ...X264, other]);
    await look(other);
    await visitor.sees('This is another film.');
    await visitor.pick(path.resolve('package.json'), 'Choose the file that came back');
    await visitor.sees(/is not a video file that can be read here/);
  });

  it('shows what a chat app’s stand-in makes of it, with the least alike frame', async () => {
    const { visitor } = there;
    await visitor.press('Try it: send it through Windle Chat');
    await visitor.sees(/made smaller: 540×960/, 90_000);
    await visitor.sees(/compressed again/);
    await visitor.sees(/sound was compressed again/);
    await visitor.sees(/The least alike frame/);
    expect(visitor.errors).toEqual([]);
  });
});
