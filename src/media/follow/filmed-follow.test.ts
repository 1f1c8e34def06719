import { type Actor, filmed, type FilmedScene, photograph, placeOf } from '../../../tests/filmed-scenes';
import { highsSolver } from '../../../tests/lp-solvers';
import { panning, shaking, standing } from '../../../tests/moving-pictures';
import { type FoundThing, nodeDetector, THINGS } from '../../../tests/node-detector';
import { gathered } from '../../../tests/node-follow';
import { inSoak, SEED, seeded, soakFigure, trials } from '../../../tests/soak';
import { tallPath } from '../../../tests/tall-path';
import type { Track } from '@core/follow/evidence';
import type { SolveProgram } from '@core/follow/linear-program';
import { findTrackPoint } from '@core/follow/track';
import { buildTracks } from '@core/follow/tracks';

const RATE = 30;
/** Nearer to the picture's edge than this, 0…1, nobody is whole in it for sure. */
const EDGE = 0.02;
const PHOTOS = {
  firefighter: photograph('firefighter'),
  horse: photograph('horse'),
  dog: photograph('dog'),
  pickup: photograph('pickup'),
};

let detect: (rgb: Float32Array) => Promise<FoundThing[]>;
let solve: SolveProgram;
beforeAll(async () => {
  detect = await nodeDetector();
  solve = await highsSolver();
}, 60_000);

/** The subjects' tracks in a film of a scene. */
async function tracksIn(scene: FilmedScene, seconds: number): Promise<Track[]> {
  const pictures = filmed(scene, THINGS.picture.width, THINGS.picture.height);
  return buildTracks(await gathered(pictures, { frames: seconds * RATE, rate: RATE }, detect), RATE);
}

/** Steps up and down, and leans a little, as one who walks. */
const gait = (t: number, size: number): number => 0.02 * size * Math.abs(Math.sin(2 * Math.PI * t));

/** Actor who walks from a place to another in so many seconds. */
const walker = (
  photo: Actor['photo'],
  size: number,
  [from, to]: [number, number],
  seconds: number,
): Actor => ({
  ...{ photo, size, mirrored: to > from },
  at: (t) => ({ x: from + ((to - from) * t) / seconds, y: 0.55 - gait(t, size) }),
});

/** Share of the frames in which a subject that shows is whole inside the window that follows what is surest. */
async function insideIn(scene: FilmedScene, seconds: number): Promise<number> {
  const out = seconds * RATE;
  const tracks = await tracksIn(scene, seconds);
  const windowAt = tallPath(tracks, { out, rate: RATE }, solve);
  const frames = Array.from({ length: out }, (_, frame) => frame);
  const places = frames.map((frame) => placeOf(scene.actors[0]!, frame / RATE));
  // Where it can be: what is behind the post, or not yet all in the picture, cannot be whole in a window.
  const shown = frames.filter((frame) => {
    const { x, width } = places[frame]!;
    const { post } = scene;
    const hidden = post && x + width > post.x && x < post.x + post.width;
    return !hidden && x >= EDGE && x + width <= 1 - EDGE;
  });
  const inside = shown.filter((frame) => {
    const { x, width } = places[frame]!;
    const window = windowAt(frame);
    return x >= window.x - 1e-6 && x + width <= window.x + window.width + 1e-6;
  });
  return inside.length / shown.length;
}

describe('films of photographs, from their pictures to the path', () => {
  const films: [name: string, seconds: number, scene: FilmedScene][] = [
    [
      'a person who walks behind a post, from a hand that shakes',
      6,
      {
        ...{ seed: 5, camera: shaking, grain: 6, post: { x: 0.46, width: 0.1 } },
        actors: [{ ...walker(PHOTOS.firefighter, 0.3, [0.12, 0.88], 6), build: 1.3 }],
      },
    ],
    [
      'a horse that turns back',
      6,
      {
        ...{ seed: 7, camera: standing, grain: 8 },
        actors: [
          { photo: PHOTOS.horse, size: 0.22, at: (t) => ({ x: 0.5 + 0.3 * Math.sin(0.9 * t), y: 0.5 }) },
        ],
      },
    ],
    [
      'a car far away',
      5,
      {
        ...{ seed: 8, camera: shaking, grain: 4 },
        actors: [{ photo: PHOTOS.pickup, size: 0.05, at: (t) => ({ x: 0.1 + 0.15 * t, y: 0.6 }) }],
      },
    ],
  ];
  it.each(trials(films.slice(0, 1), films))(
    'keeps in view %s',
    async (_, seconds, scene) => {
      expect(await insideIn(scene, seconds)).toBeGreaterThanOrEqual(0.98);
    },
    60_000,
  );

  inSoak(
    'holds on to who is hidden for a while',
    async () => {
      const count = 40;
      const next = seeded(SEED + 1);
      let kept = 0;
      for (let n = 0; n < count; n++) {
        const photo = next() < 0.5 ? PHOTOS.firefighter : PHOTOS.horse;
        const post = { x: 0.4 + 0.05 * next(), width: 0.08 + 0.1 * next() };
        const actor = walker(photo, 0.2 + 0.15 * next(), next() < 0.5 ? [0.1, 0.9] : [0.9, 0.1], 6);
        const scene = {
          seed: n + 90,
          camera: next() < 0.5 ? shaking : standing,
          grain: 6,
          post,
          actors: [actor],
        };
        if ((await insideIn(scene, 6)) >= 0.98) kept += 1;
      }
      expect(kept / count).toBeGreaterThanOrEqual(0.95);
      soakFigure('films of somebody who hides, kept in view', `${kept} of ${count}`);
    },
    900_000,
  );

  it('keeps its numbers where two cross', async () => {
    const count = trials(1, 100);
    const next = seeded(SEED);
    let kept = 0;
    for (let n = 0; n < count; n++) {
      const pick = <T>(all: readonly T[]): T => all[Math.floor(next() * all.length)] as T;
      const size = () => 0.2 + 0.2 * next();
      const [left, right] = [0.12 + 0.1 * next(), 0.78 + 0.1 * next()];
      const pair: [Actor, Actor] = [
        walker(pick([PHOTOS.firefighter, PHOTOS.horse]), size(), [left, right], 4),
        walker(pick([PHOTOS.dog, PHOTOS.firefighter]), size(), [right, left], 4),
      ];
      const camera = pick([standing, shaking, panning(12)]);
      const tracks = await tracksIn({ seed: n + 50, camera, grain: 5, actors: pair }, 4);
      if (pair.every((actor, i) => keepsNumber(tracks, actor, pair[1 - i]!, 4))) kept += 1;
    }
    expect(kept / count).toBeGreaterThanOrEqual(0.95);
    soakFigure('films of crossings, numbers kept', `${kept} of ${count}`);
  }, 900_000);
});

/** Tells whether the track of somebody, from where it was first seen, does not end on the other one. */
function keepsNumber(tracks: readonly Track[], own: Actor, other: Actor, seconds: number): boolean {
  const off = (track: Track, actor: Actor, frame: number) => {
    const box = findTrackPoint(track, frame)?.box;
    return box ? Math.abs(box.x + box.width / 2 - actor.at(frame / RATE).x) : Infinity;
  };
  const named = tracks.filter(({ kind }) => kind !== 'motion' && kind !== 'face');
  const last = Math.round(0.9 * seconds * RATE);
  // They meet in the middle of the film.
  for (let frame = 3; frame <= 0.35 * seconds * RATE; frame += 3) {
    const [track] = [...named].sort((a, b) => off(a, own, frame) - off(b, own, frame));
    if (track && off(track, own, frame) < 0.04)
      return off(track, own, last) < 0.08 && off(track, other, last) > 0.08;
  }
  return false;
}
