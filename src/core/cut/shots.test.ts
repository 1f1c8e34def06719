import fc from 'fast-check';
import { testFraming, TEST_MASTER, testShot } from '../job/test-job';
import { toBoundaries, moveBoundary, replaceShots, type Shots, withBoundary, removeBoundary } from './shots';

const FRAMES = 300;
const zoomed = (shot: string, zoom: number) => ({ ...testFraming({ zoom }), shot });
const zoomOf = ({ framings }: Shots, shot: string) =>
  framings.find((framing) => framing.shot === shot)?.keyframes[0]?.zoom;

/** Arbitrary edit that a person makes at some frame of a master. */
const act = fc.record({
  kind: fc.constantFrom('split', 'merge', 'move'),
  frame: fc.nat(FRAMES - 1),
  to: fc.nat(FRAMES - 1),
});

describe('shots', () => {
  const start: Shots = {
    shots: [testShot('a', 0, 100), testShot('b', 100, FRAMES)],
    framings: [zoomed('a', 2), zoomed('b', 5)],
  };

  it('keep what they are when their cut moves', () => {
    const moved = moveBoundary(toBoundaries(start.shots), 100, 99, FRAMES);
    const made = replaceShots(start, TEST_MASTER, start.shots, moved, FRAMES);
    expect(made.shots.map(({ id, in: first, out }) => [id, first, out])).toEqual([
      ['a', 0, 99],
      ['b', 99, FRAMES],
    ]);
    expect([zoomOf(made, 'a'), zoomOf(made, 'b')]).toEqual([2, 5]);
  });

  it('lose and double nothing in any sequence of splits, merges and moves', () => {
    fc.assert(
      fc.property(fc.array(act, { minLength: 1, maxLength: 12 }), (acts) => {
        let now = start;
        const ever = new Set(now.shots.map((shot) => shot.id));
        acts.forEach(({ kind, frame, to }, n) => {
          const before = now;
          const bounds = toBoundaries(before.shots);
          const inside = before.shots.find((shot) => frame >= shot.in && frame < shot.out)!;
          const wanted =
            kind === 'split'
              ? withBoundary(bounds, frame, `new-${n}`)
              : kind === 'merge'
                ? removeBoundary(bounds, inside.in)
                : moveBoundary(bounds, inside.in, to, FRAMES);
          now = replaceShots(before, TEST_MASTER, before.shots, wanted, FRAMES);
          const holds = (what: string, so: boolean) => {
            if (!so) throw new Error(`after ${n + 1} acts: ${what}`);
          };
          now.shots.forEach((shot, i) => holds('no gap', shot.in === (now.shots[i - 1]?.out ?? 0)));
          holds('to the end', now.shots[now.shots.length - 1]!.out === FRAMES);
          for (const shot of now.shots) {
            // One of before is what it was; a new one has a name that none ever had, and the framing it lies in.
            const known = before.shots.some(({ id }) => id === shot.id);
            holds('no name twice in time', known || !ever.has(shot.id));
            holds('its framing', zoomOf(now, shot.id) === zoomOf(before, known ? shot.id : inside.id));
            ever.add(shot.id);
          }
          holds('no name twice', new Set(now.shots.map(({ id }) => id)).size === now.shots.length);
          const gone = kind === 'merge' && inside.in > 0 ? 1 : 0;
          const fresh = kind === 'split' && frame > inside.in ? 1 : 0;
          holds('as many', now.shots.length === before.shots.length - gone + fresh);
        });
      }),
      { numRuns: 10_000 },
    );
  });

  it('of a list are those that begin at the same frames, and new ones', () => {
    const listed = [0, 100, 200].map((frame) => ({ frame, start: null }));
    const made = replaceShots(start, TEST_MASTER, start.shots, listed, FRAMES);
    expect(made.shots.map((shot) => shot.id).slice(0, 2)).toEqual(['a', 'b']);
    expect(zoomOf(made, made.shots[2]!.id)).toBe(5);
  });

  it('merge and move, never past their neighbours', () => {
    const bounds = toBoundaries([...start.shots, testShot('c', 300, 400)]);
    expect(removeBoundary(bounds, 100).map((boundary) => boundary.frame)).toEqual([0, 300]);
    expect(removeBoundary(bounds, 0)).toHaveLength(3);
    expect(moveBoundary(bounds, 100, 350, 400).map((boundary) => boundary.frame)).toEqual([0, 299, 300]);
    expect(moveBoundary(bounds, 300, 900, 400).map((boundary) => boundary.frame)).toEqual([0, 100, 399]);
  });
});
