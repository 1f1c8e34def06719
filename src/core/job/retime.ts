import type { Framing } from '../framing/framing';
import { compareRates, type FrameRate, rateValue } from '../time/frame-rate';
import type { Edit } from './job';

/** An edit whose places in one master mean the same moments after the master's rate changed. */
export function retimed(edit: Edit, master: string, before: FrameRate, after: FrameRate): Edit {
  if (compareRates(before, after) === 0) return edit;
  const ratio = rateValue(after) / rateValue(before);
  const retimed = (frame: number) => Math.round(frame * ratio);
  const span = <T extends { in: number; out: number }>(range: T): T => ({
    ...range,
    in: retimed(range.in),
    out: Math.max(retimed(range.in) + 1, retimed(range.out)),
  });
  const own = new Set(edit.shots.filter((shot) => shot.master === master).map((shot) => shot.id));
  const timed = (framing: Framing): Framing =>
    own.has(framing.shot) || framing.shot.startsWith(`${master}-`)
      ? { ...framing, keyframes: framing.keyframes.map((key) => ({ ...key, frame: retimed(key.frame) })) }
      : framing;
  return {
    ...edit,
    shots: edit.shots.map((shot) => (shot.master === master ? span(shot) : shot)),
    framings: edit.framings.map(timed),
    clips: edit.clips.map((clip) => ({
      ...clip,
      cut: clip.cut.map((range) => (range.master === master ? span(range) : range)),
      // A canvas that ran at the master's rate goes on doing so.
      canvases: clip.canvases.map((canvas) => ({
        ...canvas,
        detached: canvas.detached.map(timed),
        rate: compareRates(canvas.rate, before) === 0 ? after : canvas.rate,
      })),
    })),
  };
}
