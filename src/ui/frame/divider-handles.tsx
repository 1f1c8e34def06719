import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { LEAST_PANE, type Layout } from '@core/layout/layout';
import type { Canvas } from '@core/layout/canvas';
import { clamp } from '@core/picture/size';
import { colours, TARGET } from '../theme/tokens';
import { useLayout } from './use-layout';

/** The lines where stacked panes meet, to be dragged up and down. */
export function DividerHandles({ canvas, width, height }: { canvas: Canvas; width: number; height: number }) {
  const { kind, stacked } = canvas.layout;
  if (kind !== 'stacked') return null;
  return stacked.dividers
    .slice(0, stacked.panes - 1)
    .map((place, i) => (
      <Handle key={i} index={i} place={place} layout={canvas.layout} width={width} height={height} />
    ));
}

interface Props {
  index: number;
  place: number;
  layout: Layout;
  width: number;
  height: number;
}

function Handle(props: Props) {
  const { index, place, width, height } = props;
  return (
    <GestureDetector gesture={useDividerDrag(props)}>
      <View
        role="slider"
        aria-label={`Divider ${index + 1}`}
        aria-valuenow={Math.round(place * 100)}
        style={[styles.touch, { top: place * height + 3 - TARGET / 2, width: width + 6 }]}
      >
        <View style={styles.grip} />
      </View>
    </GestureDetector>
  );
}

/** A drag counts from where the divider was when it began. */
function useDividerDrag({ index, place, layout, height }: Props) {
  const setLayout = useLayout();
  const [start, setStart] = useState(place);
  return Gesture.Pan()
    .runOnJS(true)
    .minDistance(1)
    .onBegin(() => setStart(place))
    .onUpdate(({ translationY }) => {
      const dividers = dividersWith(layout, index, start + translationY / height);
      setLayout({ stacked: { ...layout.stacked, dividers } }, `divider-${index}`);
    });
}

/** Dividers with one moved; it keeps its distance from the next one and from the edges. */
function dividersWith({ stacked }: Layout, index: number, to: number): [number, number] {
  const [first, second] = stacked.dividers;
  if (index === 0) {
    const most = stacked.panes === 3 ? second : 1;
    return [clamp(to, LEAST_PANE, most - LEAST_PANE), second];
  }
  return [first, clamp(to, first + LEAST_PANE, 1 - LEAST_PANE)];
}

const styles = StyleSheet.create({
  touch: {
    position: 'absolute',
    left: 0,
    height: TARGET,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ns-resize' as 'pointer',
  },
  grip: {
    width: 44,
    height: 8,
    borderRadius: 4,
    backgroundColor: colours.ink,
    borderWidth: 1,
    borderColor: colours.chalk,
  },
});
