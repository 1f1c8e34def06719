import { highsSolver } from '../../../tests/lp-solvers';
import { panning, pictureOf, type Scene, shaking, standing } from '../../../tests/moving-pictures';
import { TALL } from '../../../tests/follow-truths';
import { PLAIN_WISHES } from '../framing/following';
import { windowAt } from '../framing/window';
import { type CameraMove, cameraBetween, movedBack, thenMoved } from './camera';
import { noEvidence, type Sample } from './evidence';
import type { LinearProgram, SolveProgram } from './linear-program';
import { movingParts } from './moving';
import { followShot } from './solve';
import { subjectsOf } from './subjects';
import type { LiveTrack } from './track';
import { tracksOf } from './tracks';

let solve: SolveProgram;
beforeAll(async () => {
  const highs = await highsSolver();
  solve = (program: LinearProgram) => highs(program);
});

const [WIDTH, HEIGHT] = [320, 180];
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

/** What is seen to move in a film, ten times a second. */
function samplesOf(scene: Scene): Sample[] {
  const pictures = Array.from({ length: SECONDS * 10 }, (_, n) => pictureOf(scene, n / 10));
  const moves = pictures.slice(1).map((picture, n) => cameraBetween(pictures[n]!, picture));
  const between = (from: number, to: number): CameraMove =>
    moves.slice(from, to).reduce((sum, move) => thenMoved(sum, move));
  return pictures.flatMap((picture, n) => {
    const [before, after] = [pictures[n - 2], pictures[n + 2]];
    if (!before || !after) return [];
    const parts = movingParts(
      picture,
      { picture: before, move: movedBack(between(n - 2, n)) },
      { picture: after, move: between(n, n + 2) },
    );
    const seen = parts.map(({ box, strength }) => ({
      ...{ kind: 'motion' as const, confidence: strength, box, look: null },
    }));
    return [{ frame: n * 3, detected: false, seen }];
  });
}

it.each(FILMS.map((film, i) => [film[0], i] as const))(
  'follows what moves in a made-up film: %s',
  (_, i) => {
    const [, size, more] = FILMS[i]!;
    const scene = sceneOf(size, i, more);
    const out = SECONDS * RATE;
    const tracks = tracksOf(samplesOf(scene), RATE);
    const found = { ...noEvidence('film'), spans: [{ in: 0, out, tracks, busy: null }] };
    const [subject] = subjectsOf(found, { in: 0, out }, RATE);
    const { keyframes } = followShot(
      {
        ...{ in: 0, out, rate: RATE, panes: [{ canvas: 'tall', ...TALL, pixels: 1080 }] },
        // All of the picture is live.
        subjects: [subject!.track as LiveTrack],
        ...{ pins: [], wishes: PLAIN_WISHES, zoom: 1, tilt: 0, mostZoom: 2 },
      },
      solve,
    );
    let inside = 0;
    for (let frame = 0; frame < out; frame++) {
      const { x, radius } = scene.subject(frame / RATE)!;
      const window = windowAt({ keyframes, turn: 0 }, frame, { pane: 9 / 16, live: 16 / 9 });
      if ((x - radius) / WIDTH >= window.x - 1e-6 && (x + radius) / WIDTH <= window.x + window.width + 1e-6)
        inside += 1;
    }
    expect(inside / out).toBeGreaterThanOrEqual(0.98);
  },
  30_000,
);
