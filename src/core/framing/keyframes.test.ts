import fc from 'fast-check';
import { type Framing, type Keyframe, keyframeAt, plainFraming, PLAIN_VALUES } from './framing';
import {
  framingCopied,
  keyframeAdded,
  keyframeCopied,
  keyframeEased,
  keyframeMoved,
  keyframeRemoved,
  motionRemoved,
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
  it('are added without a change of what is seen, on a straight way', () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 199 }), fc.integer({ min: 100, max: 199 }), (frame, seen) => {
        const more = keyframeAdded(moving, frame);
        expect(keyframeAt(more.keyframes, seen).focus.x).toBeCloseTo(
          keyframeAt(moving.keyframes, seen).focus.x,
          9,
        );
      }),
    );
  });

  it('are removed, but never the last', () => {
    expect(frames(keyframeRemoved(moving, 150))).toEqual([100, 199]);
    const framing = keyframeRemoved(keyframeRemoved(moving, 100), 199);
    expect(keyframeRemoved(framing, 150)).toBe(framing);
  });

  it('are moved between their neighbours and inside the shot', () => {
    expect(frames(keyframeMoved(moving, 150, 170, shot))).toEqual([100, 170, 199]);
    expect(frames(keyframeMoved(moving, 150, 500, shot))).toEqual([100, 198, 199]);
    expect(frames(keyframeMoved(moving, 100, 0, shot))).toEqual([100, 150, 199]);
  });

  it('are copied, eased, and given up for what stands on screen', () => {
    expect(keyframeCopied(moving, 150, 120).keyframes[1]).toMatchObject({ frame: 120, zoom: 2 });
    expect(keyframeEased(moving, 150, [0, 0, 1, 1]).keyframes.map((keyframe) => keyframe.ease)).toEqual([
      null,
      [0, 0, 1, 1],
      null,
    ]);
    expect(motionRemoved(moving, 150).keyframes).toEqual([{ ...key(100, 0.6, 2) }]);
  });
});

describe('a framing copied to another shot', () => {
  const target = { framing: plainFraming('b', 'main', 200), shot: { in: 200, out: 260 } };
  const from = { framing: { ...moving, turn: 90 as const }, shot, frame: 150 };

  it('keeps its times from the first frame, and ends with a shorter shot', () => {
    const all = framingCopied(from, target, 'all');
    expect(all).toMatchObject({ shot: 'b', turn: 90 });
    expect(frames(all)).toEqual([200, 250, 259]);
    expect(all.keyframes[2]?.focus.x).toBeCloseTo(keyframeAt(moving.keyframes, 159).focus.x, 9);
    expect(framingCopied(from, target, 'keyframes').turn).toBe(0);
  });

  it('may be only its zoom, or only its place, as they are on screen', () => {
    expect(framingCopied(from, target, 'zoom').keyframes).toMatchObject([{ zoom: 2, focus: { x: 0.5 } }]);
    expect(framingCopied(from, target, 'place').keyframes).toMatchObject([{ zoom: 1, focus: { x: 0.6 } }]);
  });
});
