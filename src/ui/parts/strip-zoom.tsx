import { StyleSheet, View } from 'react-native';
import { Gesture } from 'react-native-gesture-handler';
import { space } from '../theme/tokens';
import { Tool } from './tool';
import { Soft } from './words';

interface Props {
  /** Visible part of the strip. */
  seen: string;
  /** How closely it is looked at, from 0 on, and at most. */
  zoom: number;
  most: number;
  onZoom: (zoom: number) => void;
}

/** How much of a strip is seen at once, and how to see less or more of it. */
export function StripZoom({ seen, zoom, most, onZoom }: Props) {
  return (
    <View style={styles.zoom}>
      <Soft style={styles.words}>{seen}</Soft>
      <Tool
        icon="magnify-minus-outline"
        label="Zoom out of the strip"
        words=""
        disabled={zoom === 0}
        onPress={() => onZoom(zoom - 1)}
      />
      <Tool
        icon="magnify-plus-outline"
        label="Zoom in on the strip"
        words=""
        disabled={zoom === most}
        onPress={() => onZoom(zoom + 1)}
      />
    </View>
  );
}

/** A drag or a tap on a strip's pictures moves the playhead. @param show is given the place from the left, in pixels. */
export const scrubGesture = (show: (x: number) => void) =>
  Gesture.Exclusive(
    Gesture.Pan()
      .runOnJS(true)
      .minDistance(2)
      .onUpdate(({ x }) => show(x)),
    Gesture.Tap()
      .runOnJS(true)
      .onEnd(({ x }) => show(x)),
  );

const styles = StyleSheet.create({
  zoom: { flexDirection: 'row', alignItems: 'center', marginTop: -space.s },
  words: { flex: 1 },
});
