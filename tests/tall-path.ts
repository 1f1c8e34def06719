import { createEvidence, type Track } from '../src/core/follow/evidence';
import type { SolveProgram } from '../src/core/follow/linear-program';
import { followShot } from '../src/core/follow/solve';
import { listSubjects } from '../src/core/follow/subjects';
import type { LiveTrack } from '../src/core/follow/track';
import { DEFAULT_FOLLOW_OPTIONS } from '../src/core/framing/following';
import { computeWindow } from '../src/core/framing/window';
import { TALL } from './follow-truths';

/**
 * Where a tall canvas's window lies at each frame of a wide shot, following the surest of its subjects by plain wishes.
 * All of the picture is live.
 */
export function tallPath(
  tracks: Track[],
  { out, rate }: { out: number; rate: number },
  solve: SolveProgram,
): (frame: number) => { x: number; width: number } {
  const found = { ...createEvidence('film'), spans: [{ in: 0, out, tracks, busy: null }] };
  const [subject] = listSubjects(found, { in: 0, out }, rate);
  const { keyframes } = followShot(
    {
      ...{ in: 0, out, rate, panes: [{ canvas: 'tall', ...TALL, pixels: 1080 }] },
      subjects: [subject!.track as LiveTrack],
      ...{ pins: [], wishes: DEFAULT_FOLLOW_OPTIONS, zoom: 1, tilt: 0, maxZoom: 2 },
    },
    solve,
  );
  return (frame) => computeWindow({ keyframes, turn: 0 }, frame, { pane: 9 / 16, live: 16 / 9 });
}
