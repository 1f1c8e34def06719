import fc from 'fast-check';
import { EASES } from './easing';
import { type Framing, type Keyframe, findKeyframe, plainFraming, PLAIN_VALUES } from './framing';
import {
  copyFraming,
  addKeyframe,
  copyKeyframe,
  easeKeyframe,
  moveKeyframe,
  removeKeyframe,
  removeMotion,
} from './keyframes';

const key = (frame: number, x: number, zoom = 1): Keyframe => ({
  ...PLAIN_VALUES,
  frame,
  focus: { x, y: 0.5 },
  zoom,
  ease: null,
});
const shot = { in: 100, out: 200 };
const moving: Framing = {
  ...plainFraming('a', 'main', 100),
  keyframes: [key(100, 0.2), key(150, 0.6, 2), key(199, 0.4)],
};
const frames = (framing: Framing) => framing.keyframes.map((keyframe) => keyframe.frame);

describe('keyframes', () => {
  const unit = fc.double({ min: 0, max: 1, noNaN: true });
  const curve = fc.oneof(
    fc.constant(null),
    fc.tuple(unit, unit, unit, unit),
    fc.constantFrom(...Object.values(EASES)),
  );
  /** The furthest that two framings are apart at any frame, in thousandths of the picture. */
  const apart = (a: Framing, b: Framing, out = 200): number =>
    Math.max(
      ...Array.from({ length: out - 100 }, (_, n) => {
        const [one, other] = [findKeyframe(a.keyframes, 100 + n), findKeyframe(b.keyframes, 100 + n)];
        return 1000 * Math.abs(one.focus.x - other.focus.x);
      }),
    );

  it('are added without a change of the motion, whatever its curves', () => {
    const frame = fc.integer({ min: 100, max: 199 });
    fc.assert(
      fc.property(curve, curve, frame, frame, (first, second, one, two) => {
        const eased = easeKeyframe(easeKeyframe(moving, 100, first), 150, second);
        expect(apart(addKeyframe(addKeyframe(eased, one), two), eased)).toBeLessThan(1);
      }),
    );
  });

  it('keep their motion where they are copied to a shorter shot', () => {
    fc.assert(
      fc.property(curve, fc.integer({ min: 102, max: 199 }), (ease, out) => {
        const eased = easeKeyframe(moving, 100, ease);
        const target = { framing: plainFraming('b', 'main', 100), shot: { in: 100, out } };
        const copied = copyFraming({ framing: eased, shot, frame: 100 }, target, 'all');
        expect(apart(copied, eased, out)).toBeLessThan(1);
      }),
    );
  });

  it('are removed, but never the last', () => {
    expect(frames(removeKeyframe(moving, 150))).toEqual([100, 199]);
    const framing = removeKeyframe(removeKeyframe(moving, 100), 199);
    expect(removeKeyframe(framing, 150)).toBe(framing);
  });

  it('are moved between their neighbours and inside the shot', () => {
    expect(frames(moveKeyframe(moving, 150, 170, shot))).toEqual([100, 170, 199]);
    expect(frames(moveKeyframe(moving, 150, 500, shot))).toEqual([100, 198, 199]);
    expect(frames(moveKeyframe(moving, 100, 0, shot))).toEqual([100, 150, 199]);
  });

  it('are copied, eased, and given up for what stands on screen', () => {
    expect(copyKeyframe(moving, 150, 120).keyframes[1]).toMatchObject({ frame: 120, zoom: 2 });
    expect(easeKeyframe(moving, 150, [0, 0, 1, 1]).keyframes.map((keyframe) => keyframe.ease)).toEqual([
      null,
      [0, 0, 1, 1],
      null,
    ]);
    expect(removeMotion(moving, 150).keyframes).toEqual([{ ...key(100, 0.6, 2) }]);
  });
});

describe('a framing copied to another shot', () => {
  const target = { framing: plainFraming('b', 'main', 200), shot: { in: 200, out: 260 } };
  const from = { framing: { ...moving, turn: 90 as const }, shot, frame: 150 };

  it('keeps its times from the first frame, and ends with a shorter shot', () => {
    const all = copyFraming(from, target, 'all');
    expect(all).toMatchObject({ shot: 'b', turn: 90 });
    expect(frames(all)).toEqual([200, 250, 259]);
    expect(all.keyframes[2]?.focus.x).toBeCloseTo(findKeyframe(moving.keyframes, 159).focus.x, 9);
    expect(copyFraming(from, target, 'keyframes').turn).toBe(0);
  });

  it('may be only its zoom, or only its place, as they are on screen', () => {
    expect(copyFraming(from, target, 'zoom').keyframes).toMatchObject([{ zoom: 2, focus: { x: 0.5 } }]);
    expect(copyFraming(from, target, 'place').keyframes).toMatchObject([{ zoom: 1, focus: { x: 0.6 } }]);
  });
});
