import { useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { LineChart } from 'react-native-chart-kit';
import { CHART } from '../parts/chart';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';

const HEIGHT = 120;
/** Room for the figures at the left: the chart takes it from the padding on its other side. */
const LABEL_ROOM = 92;
/** Points that a graph shows: a long master is shown by means of several seconds each. */
const MAX_POINTS = 240;

interface Props {
  label: string;
  values: readonly number[];
  format: (value: number) => string;
}

/** A value of each of so many stretches of equal length: their means. */
function thinValues(values: readonly number[]): number[] {
  const step = Math.ceil(values.length / MAX_POINTS);
  if (step <= 1) return [...values];
  return Array.from({ length: Math.ceil(values.length / step) }, (_, i) => {
    const stretch = values.slice(i * step, (i + 1) * step);
    return stretch.reduce((sum, value) => sum + value, 0) / stretch.length;
  });
}

/** A figure along the master's time: its shape, its least and its greatest. */
export function Graph({ label, values, format }: Props) {
  const [width, setWidth] = useState(0);
  if (values.length < 2) return null;
  const words = `${format(Math.min(...values))} to ${format(Math.max(...values))}`;
  return (
    <View
      style={styles.graph}
      aria-label={`${label}: ${words}`}
      onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
    >
      {width > 0 && (
        <LineChart
          data={{ labels: [], datasets: [{ data: thinValues(values) }] }}
          width={width}
          height={HEIGHT}
          chartConfig={CHART}
          formatYLabel={(value) => format(Number(value))}
          segments={2}
          withDots={false}
          withVerticalLines={false}
          style={styles.chart}
        />
      )}
      <Soft>
        {label}: {words}
      </Soft>
    </View>
  );
}

const styles = StyleSheet.create({
  graph: { gap: space.xs },
  chart: { paddingBottom: 0, paddingRight: LABEL_ROOM },
});
