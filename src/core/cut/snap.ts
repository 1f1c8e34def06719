import type { Pause } from '../sound/waveform';
import { toFrame, type FrameRate } from '../time/frame-rate';

/** A frame that is worth meeting, and why. */
export interface SnapPoint {
  frame: number;
  kind: 'shot' | 'pause' | 'playhead' | 'end';
}

/** Frames of a master that edges snap to: where shots begin, the middles of pauses, the ends. */
export function snapPoints(
  shots: readonly { in: number; out: number }[],
  pauses: readonly Pause[],
  rate: FrameRate,
  frames: number,
): SnapPoint[] {
  const points: SnapPoint[] = [
    { frame: 0, kind: 'end' },
    { frame: frames, kind: 'end' },
  ];
  for (const shot of shots) if (shot.in > 0) points.push({ frame: shot.in, kind: 'shot' });
  for (const pause of pauses) {
    const frame = toFrame((pause.from + pause.to) / 2, rate);
    if (frame > 0 && frame < frames) points.push({ frame, kind: 'pause' });
  }
  return points.sort((a, b) => a.frame - b.frame);
}

/** The nearest point within `reach` frames, or null. A shot's start wins over a pause as near. */
export function findSnapPoint(frame: number, points: readonly SnapPoint[], reach: number): SnapPoint | null {
  let best: SnapPoint | null = null;
  const cost = (point: SnapPoint) => Math.abs(point.frame - frame) + (point.kind === 'pause' ? 0.5 : 0);
  for (const point of points) {
    if (Math.abs(point.frame - frame) > reach) continue;
    if (!best || cost(point) < cost(best)) best = point;
  }
  return best;
}
