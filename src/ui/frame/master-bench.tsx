import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { GestureDetector } from 'react-native-gesture-handler';
import { Line, Rect } from 'react-native-svg';
import { computeTilt, tiltFraming } from '@core/framing/moves';
import { computeCentre, computeCorners } from '@core/framing/window';
import { activeClip } from '@core/job/job';
import { planPanes, shotPanes } from '@core/render/plan';
import { useFramingUi } from '@state/framing';
import { withDraft, usePlayer } from '@state/player';
import { useJob, useSource } from '../job/job-context';
import { type ShownWindow, WindowOverlay } from '../job/window-overlay';
import { PictureView } from '../parts/picture-view';
import { canvasMark } from '../theme/dyes';
import { colours } from '../theme/tokens';
import { FocusPath } from './focus-path';
import { SubjectOutlines } from './subject-outlines';
import { useDrawnBox } from './use-drawn-box';
import { MarginLabels } from './margin-labels';
import type { FramingTools } from './use-framing';
import { type OtherDrag, useWindowGestures } from './use-window-gestures';
import { useCanvasLabel } from '../job/use-target';

type Vector = { x: number; y: number };

interface Props {
  tools: FramingTools;
  /** Size on screen, in pixels. */
  width: number;
  height: number;
}

/** A line shorter than this share of the picture is a slip of the finger. */
const SHORTEST_LINE = 0.05;
/** How near a corner is touched to be taken by it, in pixels. */
const CORNER_REACH = 22;

/** The master with the windows of all canvases; dragging anywhere on it drags the one that is worked on. */
export function MasterBench({ tools, width, height }: Props) {
  const bare = useFramingUi((state) => state.bare);
  const levelling = useFramingUi((state) => state.levelling);
  const { active, others } = useWindows(tools);
  const toPlace = ({ x, y }: { x: number; y: number }) => ({ x: x / width, y: y / height });
  const level = useLevel(tools, width, height);
  const boxing = useFramingUi((state) => state.boxing);
  const following = useFramingUi((state) => state.panel === 'follow');
  const drawing = useDrawnBox(tools, width, height);
  const { area, gesture } = useWindowGestures(tools, {
    moveOf: toPlace,
    placeOf: toPlace,
    begin: (point) => {
      if (levelling) return level.drag(point);
      if (boxing) return drawing.drag(point);
      const near = computeCorners(tools.window, width / height).some(
        ({ x, y }) => Math.hypot(x * width - point.x, y * height - point.y) < CORNER_REACH,
      );
      return near ? byCorner(tools, point, width, height) : null;
    },
  });
  return (
    <GestureDetector gesture={gesture}>
      <View ref={area} aria-label="Master with the windows" style={[styles.area, { width, height }]}>
        <PictureView view="master" label="The master" width={width} height={height} />
        {!bare && (
          <WindowOverlay width={width} height={height} active={active} others={others} handles={!tools.fits}>
            <FocusPath tools={tools} width={width} height={height} />
            {!tools.fits && <MarginLabels tools={tools} width={width} height={height} />}
            {level.line && (
              <Line {...level.line} stroke={colours.madder} strokeWidth={3} strokeDasharray={[8, 4]} />
            )}
            {drawing.box && (
              <Rect
                {...drawing.box}
                fill="none"
                stroke={colours.madder}
                strokeWidth={3}
                strokeDasharray={[8, 4]}
              />
            )}
          </WindowOverlay>
        )}
        {following && !bare && !boxing && <SubjectOutlines tools={tools} width={width} height={height} />}
      </View>
    </GestureDetector>
  );
}

/** Every window of the shot on screen: of all canvases of the clip, and of all their panes. */
function useWindows(tools: FramingTools): { active: ShownWindow; others: ShownWindow[] } {
  const labelOf = useCanvasLabel();
  const settled = useJob();
  const draft = usePlayer((state) => state.draft);
  const source = useSource();
  const { edit } = withDraft(settled, draft);
  const shown = activeClip(edit).canvases.flatMap((canvas) => {
    const several = new Set(tools.panes.map((pane) => pane.track)).size > 1;
    return planPanes(shotPanes(canvas, edit.framings, tools.shot, source), tools.frame)
      .map((pane, i) => ({ pane, i }))
      .filter(({ pane }) => pane.blur === 0)
      .map(({ pane, i }) => ({
        key: `${canvas.id}-${i}`,
        canvas,
        track: pane.track,
        window: pane.window,
        mark: canvasMark(canvas.dye),
        name:
          several && canvas.id === tools.canvas.id ? `${labelOf(canvas)}, pane ${i + 1}` : labelOf(canvas),
      }));
  });
  const on = shown.findLast((view) => view.canvas.id === tools.canvas.id && view.track === tools.track);
  if (!on) throw new Error('the canvas being worked on has a pane');
  return { active: on, others: shown.filter((view) => view !== on) };
}

/** A corner of the window being dragged: away from its middle widens, toward it tightens. */
function byCorner(tools: FramingTools, point: Vector, width: number, height: number): OtherDrag {
  const { window, framing } = tools;
  const centre = computeCentre(window);
  const far = (to: Vector) => Math.max(4, Math.hypot(to.x - centre.x * width, to.y - centre.y * height));
  return (to, done) => tools.zoom(framing, far(point) / far(to), centre, done);
}

/** A line drawn along the horizon, that becomes level. */
function useLevel(tools: FramingTools, width: number, height: number) {
  const [line, setLine] = useState<{ x1: number; y1: number; x2: number; y2: number } | null>(null);
  const drag = (point: Vector): OtherDrag => {
    const { framing, scope, frame } = tools;
    return (to, done) => {
      setLine(done ? null : { x1: point.x, y1: point.y, x2: to.x, y2: to.y });
      if (!done) return;
      useFramingUi.setState({ levelling: false });
      const way = { x: to.x - point.x, y: to.y - point.y };
      if (Math.hypot(way.x, way.y) < SHORTEST_LINE * Math.min(width, height)) return;
      tools.keep('tilt', tiltFraming(framing, scope, frame, computeTilt(way)));
    };
  };
  return { line, drag };
}

const styles = StyleSheet.create({ area: { cursor: 'grab' as 'pointer', userSelect: 'none' } });
