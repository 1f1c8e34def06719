import type { Track } from '../follow/evidence';
import { findTrackPoint } from '../follow/track';
import { computeCentre } from '../framing/window';
import { hasPoint } from '../layout/overlap';
import { plannedFrame, type RenderPlan } from './plan';

/**
 * Tells whether a face that was found is seen at an output frame: its middle lies in the window of a pane.
 * @param tracks of the master that the frame shows.
 * @throws RangeError outside the plan's frames.
 */
export function isFaceVisible(plan: RenderPlan, frame: number, tracks: readonly Track[]): boolean {
  const { panes, masterFrame, live, liveSize } = plannedFrame(plan, frame);
  return tracks.some((track) => {
    const face = track.kind === 'face' ? findTrackPoint(track, masterFrame) : null;
    if (!face) return false;
    const { x, y } = computeCentre(face.box);
    const place = { x: (x - live.x) / live.width, y: (y - live.y) / live.height };
    return panes.some(({ framed }) => hasPoint(framed, place, liveSize.width / liveSize.height));
  });
}
