import { highsSolver } from '../../../tests/lp-solvers';
import { panning, pictureOf, type Scene, shaking, standing } from '../../../tests/moving-pictures';
import { drawn } from '../../../tests/soak';
import { tallPath } from '../../../tests/tall-path';
import type { Sample } from './evidence';
import type { SolveProgram } from './linear-program';
import { Sampler } from './sampler';
import { buildTracks } from './tracks';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await highsSolver();
});

const [WIDTH, HEIGHT] = [320, 180];
const NO_COLOURS = new Uint8ClampedArray(WIDTH * HEIGHT * 4);
const SECONDS = 5;
/** Frames count thirty a second, of which every third is looked at. */
const RATE = 30;

/** Films with a subject that moves otherwise than the camera; sizes are shares of the height. */
const FILMS: [name: string, size: number, more: Partial<Scene>][] = [
  ['small, over still ground', 0.06, { camera: standing }],
  ['middling, with a hand that shakes', 0.15, { camera: shaking, grain: 4 }],
  ['large, in a pan', 0.4, { camera: panning(14), grain: 4 }],
  ['middling, in a pan, back and forth', 0.2, { camera: panning(14), grain: 6 }],
];

function sceneOf(size: number, i: number, more: Partial<Scene>): Scene {
  const radius = (size * HEIGHT) / 2;
  return {
    ...{ width: WIDTH, height: HEIGHT, seed: i + 20, grain: 0, camera: standing },
    subject: (t) => ({
      x: 160 + 90 * Math.sin(0.9 * t + i),
      y: 90 + 20 * Math.sin(1.7 * t),
      radius,
    }),
    ...more,
  };
}

/** Samples the movement in a film, ten times a second. */
function samplesOf(scene: Scene): Sample[] {
  const sampler = new Sampler();
  const made = Array.from({ length: SECONDS * 10 }, (_, n) => {
    const grey = pictureOf(scene, n / 10);
    return sampler.take(n * 3, { grey, pixels: NO_COLOURS }, null);
  });
  return [...made.flat(), ...sampler.end()];
}

const films = FILMS.map((film, i) => [film[0], i] as const);
it.each(drawn(films, 3))(
  'follows what moves in a made-up film: %s',
  (_, i) => {
    const [, size, more] = FILMS[i]!;
    const scene = sceneOf(size, i, more);
    const out = SECONDS * RATE;
    const tracks = buildTracks(samplesOf(scene), RATE);
    const windowAt = tallPath(tracks, { out, rate: RATE }, solve);
    let inside = 0;
    for (let frame = 0; frame < out; frame++) {
      const { x, radius } = scene.subject(frame / RATE)!;
      const window = windowAt(frame);
      if ((x - radius) / WIDTH >= window.x - 1e-6 && (x + radius) / WIDTH <= window.x + window.width + 1e-6)
        inside += 1;
    }
    expect(inside / out).toBeGreaterThanOrEqual(0.98);
  },
  30_000,
);
