import fc from 'fast-check';
import { highsSolver } from '../../../tests/lp-solvers';
import { followTruths, servedBy, simpleWays, TALL, trackOfTruth } from '../../../tests/follow-truths';
import { DEFAULT_FOLLOW_OPTIONS } from '../framing/following';
import { type Keyframe, findKeyframe } from '../framing/framing';
import { computeWindow } from '../framing/window';
import type { SolveProgram } from './linear-program';
import { type FollowTask, followShot } from './solve';
import type { LiveTrack } from './track';

let solve: SolveProgram;
beforeAll(async () => {
  solve = await highsSolver();
});

const PANE = { canvas: 'tall', ...TALL, pixels: 1080 };
const taskOf = (subjects: LiveTrack[], more: Partial<FollowTask> = {}): FollowTask => ({
  ...{ in: 0, out: 300, rate: 30, panes: [PANE], subjects, pins: [] },
  ...{ wishes: DEFAULT_FOLLOW_OPTIONS, zoom: 1, tilt: 0, maxZoom: 2 },
  ...more,
});
/** The window's middle at a frame, by the keyframes that were found. */
const middleOf = (keyframes: Keyframe[], frame: number, pane = 9 / 16): number => {
  const { x, width } = computeWindow({ keyframes, turn: 0 }, frame, { pane, live: 16 / 9 });
  return x + width / 2;
};
/** A subject that goes on a straight way, 0…1 across in so many frames. */
const walker = (from: number, to: number, frames = 300, width = 0.08): LiveTrack => ({
  kind: 'thing',
  points: Array.from({ length: frames / 3 }, (_, i) => ({
    frame: i * 3,
    confidence: 0.7,
    box: { x: from + ((to - from) * i * 3) / frames - width / 2, y: 0.35, width, height: 0.3 },
  })),
});

describe('the framing that follows a subject', () => {
  const truths = followTruths();
  const paths = () =>
    truths.map((truth, seed) => {
      const track = trackOfTruth(truth, 0.04, seed + 1);
      const { keyframes } = followShot(taskOf([track], { out: truth.frames }), solve);
      const average = simpleWays(track, truth, TALL.width)['moving average, 2 s'];
      return {
        truth,
        keyframes,
        found: servedBy(truth, TALL.width, (frame) => middleOf(keyframes, frame)),
        average: servedBy(truth, TALL.width, average),
      };
    });

  it('holds the whole subject in at least 98 of 100 frames, with a quarter of the jerk of a moving average', () => {
    const all = paths();
    for (const { found, average } of all) {
      expect(found.inside).toBeGreaterThanOrEqual(0.98);
      expect(found.inside).toBeGreaterThanOrEqual(average.inside - 0.005);
    }
    const sum = (of: (served: (typeof all)[number]) => number) =>
      all.reduce((total, next) => total + of(next), 0);
    expect(sum(({ found }) => found.jerk) / sum(({ average }) => average.jerk)).toBeLessThanOrEqual(0.25);
  });

  it('is one keyframe for a subject that stays, and few for one that moves', () => {
    for (const { truth, keyframes } of paths()) {
      if (truth.name.startsWith('stands') || truth.name.startsWith('sways'))
        expect(keyframes).toHaveLength(1);
      else expect(keyframes.length).toBeLessThanOrEqual(16);
    }
  });

  it('passes through pins and leaves them as they are', () => {
    const pin = fc.record({
      frame: fc.integer({ min: 0, max: 299 }),
      x: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.uniqueArray(pin, { maxLength: 3, selector: ({ frame }) => frame }), (places) => {
        const pins = places.map(({ frame, x }): Keyframe => ({
          ...{ frame, focus: { x, y: 0.5 }, seat: { x: 0.5, y: 0.5 }, zoom: 1, tilt: 0, ease: null },
        }));
        const { keyframes } = followShot(taskOf([walker(0.2, 0.8)], { pins }), solve);
        for (const kept of pins) expect(keyframes).toContainEqual(kept);
        const frames = keyframes.map(({ frame }) => frame);
        expect(frames).toEqual([...new Set(frames)].sort((a, b) => a - b));
        expect(keyframes.filter(({ found }) => !found)).toHaveLength(pins.length);
      }),
      { numRuns: 25 },
    );
  });

  it('serves every canvas by the path of the narrowest', () => {
    const panes = [PANE, { canvas: 'square', width: 9 / 16, height: 1, pixels: 1080 }];
    const track = walker(0.1, 0.9);
    const { keyframes, unserved } = followShot(taskOf([track], { panes }), solve);
    expect(unserved).toEqual([]);
    for (const { frame, box } of track.points) {
      for (const pane of [9 / 16, 1]) {
        const window = computeWindow({ keyframes, turn: 0 }, frame, { pane, live: 16 / 9 });
        expect(box.x).toBeGreaterThan(window.x - 0.01);
        expect(box.x + box.width).toBeLessThan(window.x + window.width + 0.01);
      }
    }
  });

  it('holds two in view while they fit, and says when they do not, and prefers the first', () => {
    const [near, far] = [walker(0.5, 0.5), walker(0.55, 0.95)];
    const { keyframes, doubts } = followShot(taskOf([near, far]), solve);
    const apart = doubts.find(({ why }) => why === 'apart')!;
    expect(apart.out).toBe(300);
    const window = computeWindow({ keyframes, turn: 0 }, 299, { pane: 9 / 16, live: 16 / 9 });
    expect(0.46).toBeGreaterThan(window.x - 0.01);
    expect(0.54).toBeLessThan(window.x + window.width + 0.01);
  });

  it('names the canvas that is too narrow for a subject, where another is not', () => {
    const wide = { canvas: 'square', width: 9 / 16, height: 1, pixels: 1080 };
    const { unserved } = followShot(taskOf([walker(0.3, 0.7, 300, 0.45)], { panes: [PANE, wide] }), solve);
    expect(unserved).toEqual(['tall']);
  });

  it('zooms so that a subject fills its share, and not past what is sharp', () => {
    const wishes = { ...DEFAULT_FOLLOW_OPTIONS, fills: 0.6 };
    const heights = (maxZoom: number) => {
      const { keyframes } = followShot(taskOf([walker(0.3, 0.7)], { wishes, maxZoom }), solve);
      return keyframes.map(({ zoom }) => zoom);
    };
    for (const zoom of heights(4)) expect(0.3 * zoom).toBeCloseTo(0.6, 1);
    for (const zoom of heights(1.4)) expect(zoom).toBeLessThanOrEqual(1.4 + 1e-6);
  });

  it('leaves room in front of what moves, and head room for people', () => {
    const wishes = { ...DEFAULT_FOLLOW_OPTIONS, still: 'close' as const, lead: 0.15 };
    const { keyframes } = followShot(taskOf([walker(0.25, 0.75)], { wishes }), solve);
    expect(middleOf(keyframes, 150)).toBeGreaterThan(0.5 + 0.02);
    const person = followShot(taskOf([{ ...walker(0.5, 0.5), kind: 'person' }], { wishes }), solve);
    expect(person.keyframes[0]?.seat.y).toBeLessThan(0.5);
  });

  it('says where a subject was not seen', () => {
    const hidden = walker(0.3, 0.7);
    hidden.points = hidden.points.map((point) =>
      point.frame > 120 && point.frame < 180 ? { ...point, confidence: 0 } : point,
    );
    const { doubts, places } = followShot(taskOf([hidden]), solve);
    expect(doubts).toEqual([{ why: 'unseen', in: 123, out: 180 }]);
    // Once a second, and at the end; where it is held the place is the one that is taken for it.
    expect(places.map(({ frame }) => frame)).toEqual([0, 30, 60, 90, 120, 150, 180, 210, 240, 270, 299]);
    expect(places[3]!.x).toBeCloseTo(0.3 + 0.4 * 0.3, 2);
  });

  it('follows for longer than one program, without a jolt where pieces meet', () => {
    const long = walker(0.2, 0.8, 3000);
    const points = Array.from({ length: 1000 }, (_, i) => {
      const x = 0.5 + 0.3 * Math.sin(i / 40);
      return { frame: i * 3, confidence: 0.7, box: { x: x - 0.04, y: 0.35, width: 0.08, height: 0.3 } };
    });
    const { keyframes, doubts } = followShot(taskOf([{ ...long, points }], { out: 3000 }), solve);
    expect(doubts).toEqual([]);
    for (let frame = 1450; frame < 1550; frame++) {
      const way = Math.abs(
        findKeyframe(keyframes, frame + 1).focus.x - findKeyframe(keyframes, frame).focus.x,
      );
      expect(way).toBeLessThan(0.006);
    }
  });

  it('has to be told what to follow', () => {
    expect(() => followShot(taskOf([]), solve)).toThrow(RangeError);
  });
});
