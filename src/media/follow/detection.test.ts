import { execFileSync } from 'node:child_process';
import { SHOTS, shotStarts } from '../../../demo/film/shots';
import type { PictureRect } from '@core/picture/size';
import { filmed, photograph, type PhotographName, placeOf } from '../../../tests/filmed-scenes';
import { standing } from '../../../tests/moving-pictures';
import { type FoundThing, nodeDetector, THINGS } from '../../../tests/node-detector';
import { letterboxedPixels } from '../../../tests/node-follow';
import { type SubjectKind, toSubjectKind } from '@core/follow/evidence';
import { computeOverlap } from '@core/follow/track';

const { width, height } = THINGS.picture;
const FILM = 'public/demo/kite-day.mp4';
/** Class numbers of the COCO data set, from 0. */
const [PERSON, KITE] = [0, 33];

let detect: (rgb: Float32Array) => Promise<FoundThing[]>;
beforeAll(async () => {
  detect = await nodeDetector();
}, 60_000);

/** Runs the model on a frame of the demo film. */
function found(frame: number): Promise<FoundThing[]> {
  const fit = `scale=${THINGS.width}:-2,pad=${THINGS.width}:${THINGS.height}:0:(oh-ih)/2`;
  const args = [
    '-v',
    'error',
    '-ss',
    String(((frame + 0.5) * 1001) / 24000),
    '-i',
    FILM,
    '-vf',
    fit,
    '-frames:v',
    '1',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb24',
    '-',
  ];
  return detect(Float32Array.from(execFileSync('ffmpeg', args, { maxBuffer: 1 << 26 })));
}

const holds = ({ x, y, width, height }: PictureRect, at: { x: number; y: number }) =>
  at.x > x && at.x < x + width && at.y > y && at.y < y + height;

describe('the detector, re-shaped for small wide pictures', () => {
  const starts = shotStarts();
  const startOf = (name: string) => starts.find(({ shot }) => shot.name === name)!;

  it('sees the people who are drawn, at 0.35 or more, where they stand', async () => {
    const { start } = startOf('Evening, the last kite climbs');
    for (const into of [40, 90, 140]) {
      const people = (await found(start + into)).filter(
        ({ of, confidence }) => of === PERSON && confidence >= 0.35,
      );
      // They stand at 430 and 560 of 1920, on the beach.
      for (const x of [430 / 1920, 560 / 1920])
        expect(people.some(({ place }) => holds(place, { x, y: 0.82 }))).toBe(true);
    }
  });

  it('sees the kite that crosses, in most of its way', async () => {
    const { start, shot } = startOf('The red kite crosses');
    let seen = 0;
    for (let into = 20; into <= 120; into += 20) {
      const { x, y } = shot.subject((into * 1001) / 24000);
      const kites = (await found(start + into)).filter(({ of }) => of === KITE);
      if (kites.some(({ place }) => holds(place, { x: x / 1920, y: y / 1080 }))) seen += 1;
    }
    expect(seen).toBeGreaterThanOrEqual(5);
  });

  it('sees nothing alive in a shot without anyone', async () => {
    const { start } = startOf('The paper windmill');
    const alive = (await found(start + 60)).filter(
      ({ of, confidence }) => confidence >= 0.35 && (of === PERSON || (of >= 14 && of <= 23)),
    );
    expect(alive).toEqual([]);
    expect(SHOTS).toHaveLength(7);
  });
});

// Photographs over textured ground; where they come from is told beside them. Measured: the person 0.45 to 0.61, the
// horse 0.37 to 0.81, the dog 0.36 to 0.58, the car 0.41 to 0.50.
it.each<[name: PhotographName, kind: SubjectKind, sizes: number[]]>([
  ['firefighter', 'person', [0.2, 0.3, 0.45, 0.6]],
  ['horse', 'animal', [0.2, 0.3, 0.45, 0.6]],
  ['dog', 'animal', [0.2, 0.3, 0.45, 0.6]],
  ['pickup', 'vehicle', [0.15, 0.25]],
])('sees a photographed %s as %s, at 0.35 or more, where it is', async (name, kind, sizes) => {
  for (const size of sizes) {
    for (const mirrored of [false, true]) {
      const actor = { photo: photograph(name), size, mirrored, at: () => ({ x: 0.4, y: 0.55 }) };
      const film = filmed({ seed: 3, camera: standing, grain: 6, actors: [actor] }, width, height);
      const [surest] = [...(await detect(letterboxedPixels(film(0))))].sort(
        (a, b) => b.confidence - a.confidence,
      );
      expect(toSubjectKind(surest!.of)).toBe(kind);
      expect(surest!.confidence).toBeGreaterThanOrEqual(0.35);
      expect(computeOverlap(surest!.place, placeOf(actor, 0))).toBeGreaterThan(0.65);
    }
  }
});
