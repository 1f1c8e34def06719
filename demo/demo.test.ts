import { readFileSync, statSync } from 'node:fs';
import { computeCoverage } from '../src/core/proof/coverage';
import { makeCanvas } from '../src/core/layout/canvas';
import { demoSchema } from '../src/core/job/demo';
import { toSource } from '../src/core/master/source';
import { chooseCanvasSize, listPlacements } from '../src/core/outlets/outlets';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import { plannedFrame, createRenderPlan } from '../src/core/render/plan';
import { testMaster, testRange, testShot } from '../src/core/job/test-job';
import { probe } from '../tests/make-clip';
import { chance, HEIGHT, WIDTH } from './film/paint';
import { shotStarts, SHOTS } from './film/shots';
import { filmSound, wavFile } from './sound';

const demo = demoSchema.parse(JSON.parse(readFileSync('public/demo/kite-day.json', 'utf8')));
const FILM = { num: 24000, den: 1001 };
const frames = SHOTS.reduce((sum, shot) => sum + shot.frames, 0);

describe('the demo film', () => {
  it('is what its code says: length, rate, size, sound', () => {
    const [video, audio] = probe('public/demo/kite-day.mp4');
    expect(video).toMatchObject({
      width: WIDTH,
      height: HEIGHT,
      nb_frames: String(frames),
      avg_frame_rate: '24000/1001',
      color_space: 'bt709',
    });
    expect(audio).toMatchObject({ codec_name: 'aac', channels: 2, sample_rate: '48000' });
    expect(Number(video?.duration)).toBeGreaterThan(35);
    expect(Number(video?.duration)).toBeLessThan(45);
    expect(statSync('public/demo/kite-day.mp4').size).toBeLessThan(6e6);
  });

  it('cuts where the job says', () => {
    expect(SHOTS.length).toBeGreaterThanOrEqual(7);
    expect(demo.shots.map((shot) => shot.in)).toEqual(shotStarts().map(({ start }) => start));
    expect(demo.shots[demo.shots.length - 1]?.out).toBe(frames);
  });

  it('is drawn the same every time', () => {
    const shot = SHOTS[1]!;
    expect(shot.subject(2.5)).toEqual(shot.subject(2.5));
    const values = Array.from({ length: 2000 }, (_, n) => chance(n));
    expect(values).toEqual(values.map((_, n) => chance(n)));
    expect(Math.min(...values)).toBeGreaterThanOrEqual(0);
    expect(Math.max(...values)).toBeLessThan(1);
    expect(values.reduce((sum, value) => sum + value, 0) / 2000).toBeCloseTo(0.5, 1);
  });

  it('has sound that fills the film without clipping', () => {
    const samples = filmSound(3);
    expect(samples.length).toBe(3 * 48000 * 2);
    const peak = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
    expect(peak).toBeGreaterThan(2000);
    expect(peak).toBeLessThan(32767);
    const wav = wavFile(samples);
    expect(wav.subarray(0, 4).toString()).toBe('RIFF');
    expect(wav.length).toBe(44 + samples.byteLength);
    expect(wav.readUInt32LE(24)).toBe(48000);
  });
});

describe('the demo job', () => {
  const plans = listPlacements(SHIPPED_SHEETS).map((target) => {
    const canvas = makeCanvas(target.key, chooseCanvasSize(target), FILM, 'canvas-1');
    const master = testMaster({ frames, picture: { width: WIDTH, height: HEIGHT } });
    const shots = demo.shots.map((shot) => testShot(shot.id, shot.in, shot.out));
    const cut = [testRange(0, frames)];
    return createRenderPlan(canvas, { cut, shots, framings: demo.framings, sources: [toSource(master)] });
  });

  it('fills every canvas on every frame', () => {
    for (const plan of plans) expect(computeCoverage(plan)).toMatchObject({ covered: true, bareFrames: 0 });
  });

  it('keeps each subject in the window', () => {
    for (const { shot, start } of shotStarts()) {
      for (let n = 0; n < shot.frames; n += 8) {
        const subject = shot.subject((n * 1001) / 24000);
        const x = Math.min(1, Math.max(0, subject.x / WIDTH));
        for (const plan of plans) {
          const window = plannedFrame(plan, start + n).panes[0]!.window;
          expect(x).toBeGreaterThanOrEqual(window.x);
          expect(x).toBeLessThanOrEqual(window.x + window.width);
        }
      }
    }
  });
});
