import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readPassLog, shareOut } from './pass-log';

const folder = mkdtempSync(path.join(tmpdir(), 'pass-'));
const SIZE = ['-f', 'lavfi', '-i'];

/** A first pass of a film that ffmpeg draws. */
function passOf(name: string, film: string, seconds: number) {
  const log = path.join(folder, name);
  const codec = ['-c:v', 'libx264', '-b:v', '400k', '-pass', '1', '-passlogfile', log];
  execFileSync('ffmpeg', ['-v', 'error', ...SIZE, film, '-t', String(seconds), ...codec, '-f', 'null', '-']);
  return readPassLog(readFileSync(`${log}-0.log`, 'utf8'), seconds);
}

/** Measures the bitrate of a film at a quality of x264, in bits per second. */
function rateAt(quality: number, film: string, seconds: number): number {
  const file = path.join(folder, 'at.h264');
  const codec = ['-c:v', 'libx264', '-crf', String(quality)];
  execFileSync('ffmpeg', ['-y', '-v', 'error', ...SIZE, film, '-t', String(seconds), ...codec, file]);
  return (statSync(file).size * 8) / seconds;
}

const EASY = 'testsrc2=s=320x180:r=24,noise=alls=8:allf=t';
const HARD = 'testsrc2=s=320x180:r=24,noise=alls=20:allf=t';

describe('bits that are shared out by first passes', () => {
  const logs = [passOf('easy', EASY, 4), passOf('hard', HARD, 2)];

  it('read every frame of x264’s own log', () => {
    expect(logs.map(({ frames }) => frames.length)).toEqual([96, 48]);
    expect(logs[0]!.frames[0]!.kind).toBe('I');
    expect(new Set(logs[0]!.frames.map(({ kind }) => kind))).toContain('B');
  });

  it('come to the whole', () => {
    const shares = shareOut(logs, 900_000, 2_000_000);
    const [easy, hard] = shares.map(({ bits }) => bits);
    expect((easy! * 4 + hard! * 2) / 6).toBeCloseTo(900_000, -3);
    const pictures = shares.flatMap((share) => share.pictures);
    expect(pictures).toHaveLength(96 + 48);
    expect(pictures.reduce((sum, one) => sum + one, 0) / 6).toBeCloseTo(900_000, -3);
  });

  it('go to what one quality spends them on', () => {
    const [easy, hard] = [rateAt(26, EASY, 4), rateAt(26, HARD, 2)];
    const [forEasy, forHard] = shareOut(logs, (easy * 4 + hard * 2) / 6, 10_000_000).map(({ bits }) => bits);
    // x264's model is a rough one this far from the rate of its first pass.
    expect(forHard! / forEasy!).toBeGreaterThan(1.5);
    expect(Math.abs(Math.log2(forHard! / forEasy! / (hard / easy)))).toBeLessThan(2.5);
  });

  it('are never more than the greatest rate: what one would have had over goes to the others', () => {
    const [easy, hard] = shareOut(logs, 900_000, 1_000_000).map(({ bits }) => bits);
    expect(hard).toBeCloseTo(1_000_000, -3);
    expect(easy).toBeCloseTo(850_000, -3);
    const all = shareOut(logs, 900_000, 900_000).map(({ bits }) => Math.round(bits));
    expect(all).toEqual([900_000, 900_000]);
  });

  it('are the same everywhere where nothing is known', () => {
    expect(shareOut([{ frames: [], seconds: 1 }], 7, 9)).toEqual([{ bits: 7, pictures: [] }]);
  });
});
