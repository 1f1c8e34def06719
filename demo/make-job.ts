/** Writes the demo job from the film's own code: `npx tsx demo/make-job.ts`. */
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { type Framing, type Keyframe, plainFraming, PLAIN_VALUES } from '../src/core/framing/framing';
import { type Demo, demoSchema } from '../src/core/job/demo';
import { MAIN_TRACK } from '../src/core/layout/pane';
import { HEIGHT, WIDTH } from './film/paint';
import { shotStarts, type FilmShot } from './film/shots';

/** Frames between keyframes of a moving subject. */
const STEP = 16;

function keyframe(shot: FilmShot, start: number, n: number): Keyframe {
  const { x, y } = shot.subject((n * 1001) / 24000);
  const place = (value: number, size: number) => Number(Math.min(1, Math.max(0, value / size)).toFixed(4));
  return {
    ...PLAIN_VALUES,
    frame: start + n,
    focus: { x: place(x, WIDTH), y: place(y, HEIGHT) },
    ease: null,
  };
}

/** Makes a framing: one keyframe for a subject that stays, else one every few frames and at the end. */
function framing(shot: FilmShot, start: number, id: string): Framing {
  const last = shot.frames - 1;
  const keys = [];
  for (let n = 0; n < last; n += STEP) keys.push(keyframe(shot, start, n));
  keys.push(keyframe(shot, start, last));
  const first = keys[0] as Keyframe;
  const travels = keys.some((key) => Math.abs(key.focus.x - first.focus.x) > 0.02);
  return { ...plainFraming(id, MAIN_TRACK, start), keyframes: travels ? keys : [first] };
}

const shots = shotStarts().map(({ shot, start }, i) => ({ id: `shot-${i + 1}`, shot, start }));
const demo: Demo = {
  title: 'Kite Day at Windle Bay',
  file: 'kite-day.mp4',
  poster: 'kite-day.jpg',
  shots: shots.map(({ id, shot, start }) => ({ id, in: start, out: start + shot.frames })),
  framings: shots.map(({ id, shot, start }) => framing(shot, start, id)),
  words: {
    title: 'Kite Day at Windle Bay',
    description: 'A windy afternoon, eight kites and one paper windmill.',
    tags: ['kites', 'seaside'],
    forChildren: false,
  },
};
const file = path.join(import.meta.dirname, '../public/demo/kite-day.json');
writeFileSync(file, JSON.stringify(demoSchema.parse(demo), null, 1) + '\n');
