import { useMemo } from 'react';
import { activeCanvas } from '@core/job/clip';
import { type OutletPlacement, PLACEMENTS, placementOf } from '@core/outlets/outlets';
import { type CanvasMark, canvasMark } from '../theme/dyes';
import { useClip } from './job-context';

/** The mark of a placement, by its place among all. */
export function markOf(key: string): CanvasMark {
  return canvasMark(PLACEMENTS.findIndex((one) => one.key === key));
}

/** The placement of the job's canvas, with its mark. */
export function useTarget(): OutletPlacement & { mark: CanvasMark } {
  const { placement } = activeCanvas(useClip());
  return useMemo(() => ({ ...placementOf(placement), mark: markOf(placement) }), [placement]);
}
