import { listShots } from '../cut/master-shots';
import type { Shot } from '../cut/shot';
import type { Framing } from '../framing/framing';
import type { Canvas } from '../layout/canvas';
import type { Source } from '../master/source';
import { type PlanSegment, type RenderPlan, shotPanes } from './plan';

/** Input of a change of a few framings: all framings after it, and those that changed. */
interface FramingChange {
  shots: readonly Shot[];
  framings: readonly Framing[];
  changed: readonly Pick<Framing, 'shot'>[];
}

/** The segments of a plan that a change of framings touches, with their panes worked out anew. */
export function redrawSegments(
  plan: RenderPlan,
  canvas: Canvas,
  { shots, framings, changed }: FramingChange,
): PlanSegment[] {
  const touched = new Set(changed.map(({ shot }) => shot));
  const own = framings.filter(({ shot }) => touched.has(shot));
  const segments = plan.segments.filter((segment) => touched.has(segment.shot));
  return segments.flatMap((segment) => {
    const source = plan.sources[segment.source] as Source;
    const shot = listShots(shots, source).find(({ id }) => id === segment.shot);
    return shot ? [{ ...segment, ...shotPanes(canvas, own, shot, source) }] : [];
  });
}

/** A plan with segments in the place of its own that start where they do; the others stay the same objects. */
export function withSegments(plan: RenderPlan, segments: readonly PlanSegment[]): RenderPlan {
  if (segments.length === 0) return plan;
  const byStart = new Map(segments.map((segment) => [segment.start, segment]));
  return { ...plan, segments: plan.segments.map((segment) => byStart.get(segment.start) ?? segment) };
}
