import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { MIN_PANE_SHARE } from '@core/layout/kinds/dividers';
import { chosenLayout, type Layout } from '@core/layout/layout';
import type { Canvas } from '@core/layout/canvas';
import { colours, TARGET } from '../theme/tokens';
import { useLayout } from './use-layout';

/** The lines where panes meet, to be dragged up and down. */
export function DividerHandles({ canvas, width, height }: { canvas: Canvas; width: number; height: number }) {
  const { layout } = canvas;
  return chosenLayout(layout).dividers.map((place, i) => (
    <Handle
      key={`${layout.kind} ${i}`}
      index={i}
      place={place}
      layout={layout}
      width={width}
      height={height}
    />
  ));
}

interface Props {
  index: number;
  place: number;
  layout: Layout;
  width: number;
  height: number;
}

/** Steps of the keys, in shares of the canvas. */
const STEPS: Record<string, number> = { ArrowUp: -0.01, ArrowDown: 0.01, PageUp: -0.1, PageDown: 0.1 };

function Handle(props: Props) {
  const { index, place, layout, width, height } = props;
  const setLayout = useLayout();
  // A drag is one change: until it ends it is seen here alone.
  const [dragged, setDragged] = useState<number | null>(null);
  const moveTo = (to: number) => chosenLayout(layout).withDivider(index, to);
  const storePlace = (to: number) => setLayout(moveTo(to), `divider-${index}`);
  const keys = (event: { key: string; preventDefault: () => void; stopPropagation: () => void }) => {
    const by = STEPS[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    storePlace(place + by);
  };
  const drag = Gesture.Pan()
    .runOnJS(true)
    .minDistance(1)
    .onUpdate(({ translationY }) =>
      setDragged(
        chosenLayout({ ...layout, ...moveTo(place + translationY / height) }).dividers[index] ?? place,
      ),
    )
    .onEnd(({ translationY }) => storePlace(place + translationY / height))
    .onFinalize(() => setDragged(null));
  const at = dragged ?? place;
  return (
    <GestureDetector gesture={drag}>
      <View
        role="slider"
        tabIndex={0}
        aria-label={`Divider ${index + 1}`}
        aria-valuemin={Math.round(MIN_PANE_SHARE * 100)}
        aria-valuemax={Math.round((1 - MIN_PANE_SHARE) * 100)}
        aria-valuenow={Math.round(at * 100)}
        style={[styles.touch, { top: at * height + 3 - TARGET / 2, width: width + 6 }]}
        {...{ onKeyDown: keys }}
      >
        {dragged !== null && <View style={styles.line} />}
        <View style={styles.grip} />
      </View>
    </GestureDetector>
  );
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
  line: {
    position: 'absolute',
    left: 0,
    right: 0,
    top: TARGET / 2 - 1,
    height: 2,
    backgroundColor: colours.chalk,
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
