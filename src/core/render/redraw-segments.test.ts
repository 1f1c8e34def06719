import fc from 'fast-check';
import { plainFraming, PLAIN_VALUES } from '../framing/framing';
import { testMaster, testRange, testShot } from '../job/test-job';
import { makeCanvas } from '../layout/canvas';
import { type LayoutKind, PLAIN_LAYOUT, listFramingTracks } from '../layout/layout';
import { MAIN_TRACK } from '../layout/pane';
import { toSource } from '../master/source';
import { listEnlargedByShot, findEnlargement } from './enlarged';
import { createRenderPlan } from './plan';
import { redrawSegments, withSegments } from './redraw-segments';

const source = toSource(testMaster());
const shots = [testShot('a', 0, 100), testShot('b', 100, 400), testShot('c', 400, 984)];
const framed = (shot: string, track: string, x: number, zoom: number) => ({
  ...plainFraming(shot, track, 0),
  keyframes: [{ ...PLAIN_VALUES, frame: 0, focus: { x, y: 0.5 }, zoom, ease: null }],
});
const arbitraryCut = fc.array(
  fc.tuple(fc.nat(983), fc.nat(983)).map(([a, b]) => testRange(Math.min(a, b), Math.max(a, b) + 1)),
  { minLength: 1, maxLength: 4 },
);
const kinds: LayoutKind[] = ['single', 'stacked', 'inset', 'banded', 'backdrop'];

describe('a plan with a few framings changed', () => {
  it('is the plan made anew, and keeps every other segment', () => {
    fc.assert(
      fc.property(
        arbitraryCut,
        fc.constantFrom(...kinds),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 1, max: 4, noNaN: true }),
        fc.constantFrom('a', 'b', 'c'),
        fc.boolean(),
        (cut, kind, x, zoom, shot, apart) => {
          const plain = makeCanvas(null, { width: 1080, height: 1350 }, source.rate, 'c');
          const canvas = { ...plain, layout: { ...PLAIN_LAYOUT, kind } };
          const track = listFramingTracks(canvas.layout)[0] ?? MAIN_TRACK;
          const before = [framed('a', MAIN_TRACK, 0.3, 1.5)];
          const changed = [framed(shot, track, x, zoom)];
          const framings = [...before.filter((framing) => framing.shot !== shot), ...(apart ? [] : changed)];
          const after = apart ? { ...canvas, detached: changed } : canvas;
          const input = { cut, shots, sources: [source] };
          const known = createRenderPlan(canvas, { ...input, framings: before });
          const all = apart ? before : framings;
          const redrawn = withSegments(
            known,
            redrawSegments(known, after, { shots, framings: all, changed }),
          );
          expect(redrawn).toEqual(createRenderPlan(after, { ...input, framings: all }));
          redrawn.segments.forEach((segment, i) => {
            if (segment.shot !== shot) expect(segment).toBe(known.segments[i]);
          });
          expect(findEnlargement(redrawn, shot)).toEqual(listEnlargedByShot(redrawn).get(shot));
        },
      ),
    );
  });
});
