import { useMemo } from 'react';
import { activeCanvas } from '@core/job/clip';
import { type OutletPlacement, targetOf } from '@core/outlets/outlets';
import { type CanvasMark, canvasMark } from '../theme/dyes';
import { useClip } from './job-context';

/** What the canvas being worked on is judged by, with the canvas's mark. */
export function useTarget(): OutletPlacement & { mark: CanvasMark } {
  const canvas = activeCanvas(useClip());
  return useMemo(() => ({ ...targetOf(canvas), mark: canvasMark(canvas.dye) }), [canvas]);
}
