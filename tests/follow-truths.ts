import type { LiveTrack } from '../src/core/follow/track';
import type { LiveRect } from '../src/core/picture/size';
import { random } from './random';

/** A made-up shot with one subject, of which the truth is known. */
export interface FollowTruth {
  name: string;
  rate: number;
  frames: number;
  /** Where the subject is, 0…1 of the picture, all of which is live. */
  boxAt(frame: number): LiveRect;
}

/** Aspect of the pictures, and of a tall canvas in them: 9:16 out of 16:9. */
export const TALL = { width: (9 / 16) * (9 / 16), height: 1 };

function truth(
  name: string,
  size: number,
  seconds: number,
  middle: (t: number) => [number, number],
): FollowTruth {
  const rate = 30;
  const width = size * 0.4 * (9 / 16);
  return {
    ...{ name, rate, frames: seconds * rate },
    boxAt(frame) {
      const [x, y] = middle(frame / rate);
      return { x: x - width / 2, y: y - size / 2, width, height: size };
    },
  };
}

/** Ways in which subjects move: still, across, with stops, back and forth, in a curve, by jerks. */
export function followTruths(): FollowTruth[] {
  const smooth = (u: number) => Math.min(1, Math.max(0, u)) ** 2 * (3 - 2 * Math.min(1, Math.max(0, u)));
  return [
    truth('stands still', 0.4, 8, () => [0.62, 0.5]),
    truth('sways on the spot', 0.4, 8, (t) => [0.4 + 0.02 * Math.sin(2.2 * t), 0.5]),
    truth('walks across', 0.3, 10, (t) => [0.1 + 0.08 * t, 0.55]),
    truth('walks, stops, walks on', 0.25, 12, (t) => [
      0.15 + 0.3 * smooth(t / 3) + 0.35 * smooth((t - 7) / 3),
      0.5,
    ]),
    truth('paces back and forth', 0.3, 14, (t) => [0.5 + 0.28 * Math.sin(0.7 * t), 0.5]),
    truth('flies in curves', 0.12, 12, (t) => [
      0.5 + 0.3 * Math.sin(0.78 * t),
      0.4 + 0.2 * Math.sin(1.3 * t),
    ]),
    truth('small and quick', 0.05, 10, (t) => [0.5 + 0.33 * Math.sin(1.3 * t), 0.5 + 0.1 * Math.sin(2 * t)]),
    truth('runs in and stays', 0.35, 9, (t) => [0.1 + 0.6 * smooth(t / 2), 0.5]),
  ];
}

/** The track that a tracker would have of a truth: samples ten times a second, with places that shake. */
export function trackOfTruth({ frames, rate, boxAt }: FollowTruth, shake: number, seed: number): LiveTrack {
  const next = random(seed);
  const points = [];
  for (let frame = 0; frame < frames; frame += rate / 10) {
    const box = boxAt(frame);
    const off = () => (next() - 0.5) * 2 * shake;
    points.push({
      frame,
      confidence: 0.6,
      box: { ...box, x: box.x + off() * box.width, y: box.y + off() * box.height },
    });
  }
  return { kind: 'thing', points };
}

/** How a window's path serves a truth: frames with the whole subject inside, and how much the path jerks. */
export interface Served {
  /** 0…1. */
  inside: number;
  /** Sum of the absolute third differences a frame, in window widths. */
  jerk: number;
}

/** @param middleAt the window's middle along x at a frame, 0…1 of the picture. */
export function servedBy(
  { frames, boxAt }: FollowTruth,
  width: number,
  middleAt: (frame: number) => number,
): Served {
  let inside = 0;
  let jerk = 0;
  for (let frame = 0; frame < frames; frame++) {
    const { x, width: extent } = boxAt(frame);
    const from = middleAt(frame) - width / 2;
    if (x >= from - 1e-9 && x + extent <= from + width + 1e-9) inside += 1;
    if (frame < 3) continue;
    const [a, b, c, d] = [0, 1, 2, 3].map((back) => middleAt(frame - back)) as [
      number,
      number,
      number,
      number,
    ];
    jerk += Math.abs(a - 3 * b + 3 * c - d);
  }
  return { inside: inside / frames, jerk: jerk / width };
}

/** Middles of windows by simple means, held inside the picture: what following has to be better than. */
export function simpleWays(track: LiveTrack, { rate, frames }: FollowTruth, width: number) {
  const middles = track.points.map(({ box }) => box.x + box.width / 2);
  const held = (middle: number) => Math.min(1 - width / 2, Math.max(width / 2, middle));
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const sampled = (frame: number) => {
    const place = frame / (rate / 10);
    const [a, b] = [Math.floor(place), Math.min(middles.length - 1, Math.ceil(place))];
    const first = middles[Math.min(a, middles.length - 1)] as number;
    return first + ((middles[b] as number) - first) * (place - a);
  };
  const around = Array.from({ length: frames }, (_, frame) => {
    const near: number[] = [];
    for (let other = frame - rate; other <= frame + rate; other++)
      near.push(sampled(Math.min(frames - 1, Math.max(0, other))));
    return held(mean(near));
  });
  const best = held((Math.min(...middles) + Math.max(...middles)) / 2);
  return {
    'one place': () => best,
    'moving average, 2 s': (frame: number) => around[frame] as number,
    'the raw middle': (frame: number) => held(sampled(frame)),
  };
}
