import { useCallback, useMemo } from 'react';
import { activeCanvas } from '@core/job/clip';
import type { Canvas } from '@core/layout/canvas';
import { canvasLabel, type OutletPlacement, findTarget } from '@core/outlets/outlets';
import type { Sheets } from '@core/outlets/rule-sheet';
import type { Size } from '@core/picture/size';
import { useSheets } from '@state/job';
import { type CanvasMark, canvasMark } from '../theme/dyes';
import { useClip } from './job-context';

/** The rule sheets that clips are judged by. */
export const useRuleSheets = (): Sheets => useSheets((state) => state.sheets);

/** Reads the placement that the canvas being worked on is judged by, with the canvas's mark. */
export function useTarget(): OutletPlacement & { mark: CanvasMark } {
  const canvas = activeCanvas(useClip());
  const sheets = useRuleSheets();
  return useMemo(() => ({ ...findTarget(sheets, canvas), mark: canvasMark(canvas.dye) }), [sheets, canvas]);
}

/** Names canvases: by their placement, or by their size. */
export function useCanvasLabel(): (canvas: Pick<Canvas, 'placement'> & Size) => string {
  const sheets = useRuleSheets();
  return useCallback((canvas) => canvasLabel(sheets, canvas), [sheets]);
}
