import { useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { Soft } from '../parts/words';
import { colours, space } from '../theme/tokens';

const HEIGHT = 40;

interface Props {
  label: string;
  values: readonly number[];
  /** What the bottom of the graph stands for. */
  floor?: number;
  format: (value: number) => string;
}

/** A figure along the master's time: its shape, its least and its greatest. */
export function Graph({ label, values, floor = 0, format }: Props) {
  const [width, setWidth] = useState(0);
  if (values.length < 2) return null;
  const most = Math.max(...values);
  const least = Math.min(...values);
  const span = Math.max(1e-9, most - floor);
  const x = (i: number) => ((i / (values.length - 1)) * width).toFixed(1);
  const y = (value: number) => (HEIGHT - (Math.max(0, value - floor) / span) * (HEIGHT - 2)).toFixed(1);
  const line = values.map((value, i) => `${i === 0 ? 'M' : 'L'}${x(i)} ${y(value)}`).join('');
  const words = `${format(least)} to ${format(most)}`;
  return (
    <View style={styles.graph} aria-label={`${label}: ${words}`}>
      <View onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}>
        {width > 0 && (
          <Svg width={width} height={HEIGHT} aria-hidden>
            <Path d={`${line}V${HEIGHT}H0Z`} fill={colours.woadWash} />
            <Path d={line} stroke={colours.woad} strokeWidth={1.5} fill="none" />
          </Svg>
        )}
      </View>
      <Soft>
        {label}: {words}
      </Soft>
    </View>
  );
}

const styles = StyleSheet.create({ graph: { gap: space.xs } });
