import { execFileSync, spawnSync } from 'node:child_process';
import path from 'node:path';
import { make } from '../tests/make-specimen';
import { probe } from '../tests/make-clip';
import { atTheApp } from './app';

const here = atTheApp();

/** A film with a sound that browsers cannot decode, and a second one that they can. */
function twoSounds(): string {
  const film = make('two-sounds', { size: '640x360', seconds: 2 });
  const file = path.join(path.dirname(film), 'two-sounds.mkv');
  const tones = ['-map', '0:v', '-map', '0:a', '-map', '0:a', '-c:v', 'copy'];
  execFileSync('ffmpeg', ['-y', '-v', 'error', '-i', film, ...tones, '-c:a:0', 'ac3', '-c:a:1', 'aac', file]);
  return file;
}

describe('a film whose sound cannot be decoded here', () => {
  const film = twoSounds();

  it('is asked about at the door, and comes in with another of its tracks', async () => {
    const { visitor } = here;
    await visitor.pick(film);
    await visitor.sees(/cannot decode AC-3, which the sound of two-sounds\.mkv is coded in/);
    await visitor.press('Track 2: AAC, stereo');
    await visitor.page.waitForURL(/\/job\/[^/]+$/);
    await visitor.has('listitem', /^Sound: AAC 48 kHz stereo/);
    await visitor.step('Master');
    await visitor.sees('True peak');
    await visitor.step('Export');
    await visitor.exportClip();
    await visitor.sees('Read back: as asked');
    // Judged from outside: ffprobe.
    expect(probe((await visitor.download()).file)[1]).toMatchObject({ codec_name: 'aac', channels: 2 });
  });

  it('comes in without sound where the person says so', async () => {
    const { visitor } = here;
    await visitor.page.goto('/');
    await visitor.pick(film);
    await visitor.press('Continue without sound');
    await visitor.page.waitForURL(/\/job\/[^/]+$/);
    await visitor.has('listitem', 'Sound: none');
    await visitor.step('Check');
    await visitor.sees('You chose to leave the sound out. The clip will be silent.');
    await visitor.step('Export');
    await visitor.exportClip();
    expect(probe((await visitor.download()).file)).toHaveLength(1);
    expect(visitor.errors).toEqual([]);
  });
});

describe('a film with loud sound all around', () => {
  it('goes out in stereo, under the ceiling, and ends with the picture', async () => {
    const { visitor } = here;
    const film = make('surround', { size: '640x360', seconds: 2 });
    const file = path.join(path.dirname(film), 'surround-5.1.mp4');
    const tones = [220, 331, 440, 50, 557, 660].map((tone) => `0.99*sin(2*PI*${tone}*t)`).join('|');
    const source = ['-f', 'lavfi', '-i', `aevalsrc='${tones}':s=48000:d=2:c=5.1`];
    const coding = ['-map', '0:v', '-map', '1:a', '-c:v', 'copy', '-c:a', 'aac', '-b:a', '448k'];
    execFileSync('ffmpeg', ['-y', '-v', 'error', '-i', film, ...source, ...coding, file]);
    await visitor.page.goto('/');
    await visitor.bringIn(file);
    await visitor.step('Check');
    await visitor.sees(/has 6 channels\. The export folds them to stereo/);
    await visitor.step('Export');
    await visitor.exportClip();
    await visitor.sees('Read back: as asked');
    const made = (await visitor.download()).file;
    // Judged from outside: ffprobe's edit list, and the true peak of ffmpeg's ebur128.
    const [picture, sound] = probe(made);
    expect(sound).toMatchObject({ channels: 2, start_pts: 0 });
    expect(Number(sound?.duration)).toBeCloseTo(Number(picture?.duration), 4);
    const { stderr } = spawnSync('ffmpeg', ['-i', made, '-af', 'ebur128=peak=true', '-f', 'null', '-'], {
      encoding: 'utf8',
    });
    const peak = Number(/True peak:\s+Peak:\s+(-?[\d.]+) dBFS/.exec(stderr)?.[1]);
    expect(peak).toBeLessThanOrEqual(0);
    expect(peak).toBeGreaterThan(-3);
  });
});
