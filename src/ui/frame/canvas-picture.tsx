import { StyleSheet, View } from 'react-native';
import { GestureDetector } from 'react-native-gesture-handler';
import { toDirection } from '@core/framing/window';
import type { PlannedPane } from '@core/render/plan';
import { useFramingUi } from '@state/framing';
import { canvasView } from '@state/player';
import { useSource } from '../job/job-context';
import { PictureView } from '../parts/picture-view';
import { canvasMark } from '../theme/dyes';
import { DividerHandles } from './divider-handles';
import type { FramingTools } from './use-framing';
import { useWindowGestures } from './use-window-gestures';
import { useCanvasLabel } from '../job/use-target';

type Vector = { x: number; y: number };

/** The canvas as it will be; dragging it moves the picture under the frame. */
export function CanvasPicture({
  tools,
  width,
  height,
}: {
  tools: FramingTools;
  width: number;
  height: number;
}) {
  const { picture } = useSource();
  const labelOf = useCanvasLabel();
  const { canvas, pane } = tools;
  const mark = canvasMark(canvas.dye);
  const scale = width / canvas.width;
  // A way across the pane as a way across the picture: the window may lie turned on it.
  const inPicture = ({ x, y }: Vector): Vector => {
    const { cos, sin } = toDirection(pane.window.angle);
    const step = (pane.window.width * picture.width) / (pane.picture.width * scale);
    return {
      x: ((x * cos - y * sin) * step) / picture.width,
      y: ((x * sin + y * cos) * step) / picture.height,
    };
  };
  const { area, gesture } = useWindowGestures(tools, {
    // The picture follows the finger, so the window goes the other way.
    moveOf: ({ x, y }) => inPicture({ x: -x, y: -y }),
    placeOf: ({ x, y }) => {
      const rect = pane.picture;
      const by = inPicture({
        x: x - (rect.x + rect.width / 2) * scale,
        y: y - (rect.y + rect.height / 2) * scale,
      });
      const { window } = pane;
      return { x: window.x + window.width / 2 + by.x, y: window.y + window.height / 2 + by.y };
    },
    begin: ({ x, y }) => {
      const under = tools.panes.findLast((pane) => holds(pane, x / scale, y / scale));
      if (under && under.track !== tools.track) useFramingUi.setState({ track: under.track });
      return null;
    },
  });
  return (
    <View>
      <GestureDetector gesture={gesture}>
        <View
          ref={area}
          aria-label="Canvas as it will be"
          style={[styles.area, { width: width + 6, height: height + 6, borderColor: mark.dye }]}
        >
          <PictureView view={canvasView(canvas.id)} label={labelOf(canvas)} width={width} height={height} />
        </View>
      </GestureDetector>
      <DividerHandles canvas={canvas} width={width} height={height} />
    </View>
  );
}

const holds = ({ pane }: PlannedPane, x: number, y: number): boolean =>
  x >= pane.x && y >= pane.y && x < pane.x + pane.width && y < pane.y + pane.height;

const styles = StyleSheet.create({
  area: { cursor: 'grab' as 'pointer', userSelect: 'none', borderWidth: 3, borderRadius: 3 },
});
