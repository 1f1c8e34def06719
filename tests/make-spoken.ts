import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from './encode-film';

/** A recording of `tests/recordings`, and when it begins, in seconds. */
export interface Placed {
  recording: string;
  at: number;
}

/** Pictures of the shots: nothing in common from one to the next. */
const SHOTS = [
  'color=c=navy:s=640x360:r=25:d=4,drawgrid=w=80:h=60:c=white',
  'color=c=orange:s=640x360:r=25:d=4,drawbox=w=320:h=180:c=black:t=fill',
  'color=c=white:s=640x360:r=25:d=4,drawgrid=w=20:h=200:c=green:t=8',
  'color=c=purple:s=640x360:r=25:d=4,drawbox=x=400:w=80:h=360:c=yellow:t=fill',
];
/** Seconds of a shot, and of all. */
const SHOT = 4;
const LENGTH = SHOTS.length * SHOT;

/** Makes a film of four shots of four seconds whose sound is recordings over a low hiss, and gives its path. */
export function makeSpoken(placed: readonly Placed[]): string {
  const file = path.join(mkdtempSync(path.join(tmpdir(), 'spoken-')), 'spoken.mp4');
  const pictures = SHOTS.flatMap((shot) => ['-f', 'lavfi', '-i', shot]);
  const recordings = placed.flatMap(({ recording }) => ['-i', `tests/recordings/${recording}.ogg`]);
  const hiss = ['-f', 'lavfi', '-i', `anoisesrc=a=0.003:r=48000:d=${LENGTH}:seed=1`];
  const first = SHOTS.length + 1;
  const delayed = placed.map(
    ({ at }, i) => `[${first + i}:a]aresample=48000,volume=0.7,adelay=${Math.round(at * 1000)}[s${i}]`,
  );
  const graph = [
    `${SHOTS.map((_, i) => `[${i}:v]`).join('')}concat=n=${SHOTS.length}:v=1,format=yuv420p[v]`,
    ...delayed,
    `[${SHOTS.length}:a]${placed.map((_, i) => `[s${i}]`).join('')}amix=inputs=${placed.length + 1}:normalize=0:duration=first[a]`,
  ];
  const output = [
    '-map',
    '[v]',
    '-map',
    '[a]',
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-c:a',
    'aac',
    '-ac',
    '2',
  ];
  const args = [...pictures, ...hiss, ...recordings, '-filter_complex', graph.join(';')];
  return encodeFilm(file, [...args, ...output]);
}
