import { StyleSheet, View } from 'react-native';
import { GestureDetector } from 'react-native-gesture-handler';
import { useTarget } from '../job/use-target';
import { WindowOverlay } from '../job/window-overlay';
import { PictureView } from '../parts/picture-view';
import type { FramingTools } from './use-framing';
import { useWindowGestures } from './use-window-gestures';

interface Props {
  tools: FramingTools;
  /** Size on screen, in pixels. */
  width: number;
  height: number;
}

/** The master with the window on it; dragging anywhere on it drags the window. */
export function MasterBench({ tools, width, height }: Props) {
  const { mark, label } = useTarget();
  const { area, gesture } = useWindowGestures(tools, {
    perPixel: { x: 1 / width, y: 1 / height },
    placeOf: (x, y) => ({ x: x / width, y: y / height }),
  });
  return (
    <GestureDetector gesture={gesture}>
      <View ref={area} aria-label="Master with the window" style={[styles.area, { width, height }]}>
        <PictureView view="master" label="The master" width={width} height={height} />
        <WindowOverlay width={width} height={height} window={tools.window} mark={mark} name={label} />
      </View>
    </GestureDetector>
  );
}

const styles = StyleSheet.create({ area: { cursor: 'grab' as 'pointer', userSelect: 'none' } });
