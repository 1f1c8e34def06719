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

/** Steps of the keys, in shares of the canvas. */
const STEPS: Record<string, number> = { ArrowUp: -0.01, ArrowDown: 0.01, PageUp: -0.1, PageDown: 0.1 };

function Handle(props: Props) {
  const { index, place, layout, width, height } = props;
  const setLayout = useLayout();
  // A drag is one change: until it ends it is seen here alone.
  const [dragged, setDragged] = useState<number | null>(null);
  const put = (to: number) => setLayout(dividerMoved(layout, index, to), `divider-${index}`);
  const keys = (event: { key: string; preventDefault: () => void; stopPropagation: () => void }) => {
    const by = STEPS[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    put(place + by);
  };
  const drag = Gesture.Pan()
    .runOnJS(true)
    .minDistance(1)
    .onUpdate(({ translationY }) =>
      setDragged(dividersWith(layout, index, place + translationY / height)[index] ?? place),
    )
    .onEnd(({ translationY }) => put(place + translationY / height))
    .onFinalize(() => setDragged(null));
  const at = dragged ?? place;
  return (
    <GestureDetector gesture={drag}>
      <View
        role="slider"
        tabIndex={0}
        aria-label={`Divider ${index + 1}`}
        aria-valuemin={Math.round(LEAST_PANE * 100)}
        aria-valuemax={Math.round((1 - LEAST_PANE) * 100)}
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

/** A change of a layout by which one of its dividers is elsewhere. @param to 0…1 of the canvas, y down. */
export const dividerMoved = (layout: Layout, index: number, to: number): Partial<Layout> => ({
  stacked: { ...layout.stacked, dividers: dividersWith(layout, index, to) },
});

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
