import { StyleSheet, View } from 'react-native';
import { GestureDetector } from 'react-native-gesture-handler';
import { useTarget } from '../job/use-target';
import { PictureView } from '../parts/picture-view';
import type { FramingTools } from './use-framing';
import { useWindowGestures } from './use-window-gestures';

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
  const { mark, label } = useTarget();
  const { window } = tools;
  const { area, gesture } = useWindowGestures(tools, {
    // The picture follows the finger, so the window goes the other way.
    perPixel: { x: -window.width / width, y: -window.height / height },
    placeOf: (x, y) => ({
      x: window.x + (x / width) * window.width,
      y: window.y + (y / height) * window.height,
    }),
  });
  return (
    <GestureDetector gesture={gesture}>
      <View
        ref={area}
        aria-label="Canvas as it will be"
        style={[styles.area, { width: width + 6, height: height + 6, borderColor: mark.dye }]}
      >
        <PictureView view="canvas" label={label} width={width} height={height} />
      </View>
    </GestureDetector>
  );
}

const styles = StyleSheet.create({
  area: { cursor: 'grab' as 'pointer', userSelect: 'none', borderWidth: 3, borderRadius: 3 },
});
