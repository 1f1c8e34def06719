import type { Command } from '../src/core/job/commands/commands';
import { activeClip, type Job } from '../src/core/job/job';
import { testFraming, testJob, testShot } from '../src/core/job/test-job';
import { makeCanvas } from '../src/core/layout/canvas';
import { random } from './random';

const SHOTS = 200;
const CLIPS = 12;
const CANVASES = 4;
/** Frames of a shot. */
const LENGTH = 60;

/** A job as large as they come: 200 shots, each framed with motion, ticked, for 4 canvases of 12 clips. */
export function bigJob(): Job {
  const pick = random(11);
  const job = testJob({ frames: SHOTS * LENGTH });
  const shots = Array.from({ length: SHOTS }, (_, n) => testShot(`s${n}`, n * LENGTH, (n + 1) * LENGTH));
  const framing = (shot: string, from: number) => {
    const plain = testFraming({}, { shot });
    const keyframes = [0, 20, 40].map((frame) => ({
      ...plain.keyframes[0]!,
      frame: from + frame,
      focus: { x: pick(), y: pick() },
      zoom: 1 + pick(),
    }));
    return { ...plain, keyframes };
  };
  const framings = shots.map((shot) => framing(shot.id, shot.in));
  const clip = activeClip(job.edit);
  const rate = job.masters[0]!.rate;
  const sizes = [
    { width: 1080, height: 1920 },
    { width: 1080, height: 1080 },
    { width: 1080, height: 1350 },
    { width: 1920, height: 1080 },
  ];
  const canvases = sizes.slice(0, CANVASES).map((size, n) => ({
    ...makeCanvas(null, size, rate, `canvas-${n + 1}`),
    dye: n,
    detached: shots.slice(n * 3, n * 3 + 3).map((shot) => framing(shot.id, shot.in)),
  }));
  const clips = Array.from({ length: CLIPS }, (_, n) => ({
    ...clip,
    id: `clip-${n + 1}`,
    canvases,
    words: {
      title: `Clip ${n + 1}`,
      description: 'What is to be seen in it. '.repeat(8),
      tags: ['one', 'two'],
    },
  }));
  const ticks = Object.fromEntries(shots.map(({ id }) => [id, '0123456789abcdef']));
  return { ...job, edit: { ...job.edit, shots, framings, clips, ticks, clip: 'clip-1' } };
}

/** Makes the n-th command of a person at work. */
export function commandFor(n: number): Command {
  const pick = random(n + 1);
  const shot = `s${Math.floor(pick() * SHOTS)}`;
  const plain = testFraming({ focus: { x: pick(), y: pick() }, zoom: 1 + pick() }, { shot });
  switch (n % 5) {
    case 0:
      return { type: 'set-framings', act: 'move', owner: 'shared', framings: [plain] };
    case 1:
      return { type: 'set-framings', act: 'zoom', owner: { canvas: 'canvas-2' }, framings: [plain] };
    case 2:
      return { type: 'tick-shot', shot, signature: pick().toString(16).slice(2, 18) };
    case 3:
      return { type: 'set-words', words: { title: `Title ${n}`, description: '', tags: ['one'] } };
    default:
      return { type: 'reset-framing', shot, track: 'main', owner: 'shared' };
  }
}
