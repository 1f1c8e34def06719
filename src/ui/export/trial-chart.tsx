import { useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { LineChart } from 'react-native-chart-kit';
import { Line } from 'react-native-svg';
import { adviseBitrate } from '@core/trial/advice';
import type { RateTrial } from '@core/trial/rate-trial';
import { CHART } from '../parts/chart';
import { colours } from '../theme/tokens';

const HEIGHT = 190;
/** Room for the figures at the left. */
const LEFT = 56;
const TOP = 16;

/** Where a rate lies between the points of a curve, as a place among them. */
function toPlace(bits: number, points: RateTrial['points']): number {
  const above = points.findIndex((point) => point.came >= bits);
  if (above <= 0) return above < 0 ? points.length - 1 : 0;
  const [low, high] = [points[above - 1]?.came ?? bits, points[above]?.came ?? bits];
  return above - 1 + Math.log(bits / low) / Math.log(high / low);
}

/** Chart of what a viewer gets by bitrate, with the rate from which more gains next to nothing. */
export function TrialChart({ trial }: { trial: RateTrial }) {
  const [width, setWidth] = useState(0);
  const { points } = trial;
  const { knee } = adviseBitrate(trial);
  const [least, most] = [points[0], points[points.length - 1]];
  const words = `Likeness ${least?.ssim.toFixed(3)} to ${most?.ssim.toFixed(3)}, advised ${(knee / 1e6).toFixed(1)} Mb/s`;
  const across = (place: number) => LEFT + (place * (width - LEFT)) / points.length;
  return (
    <View
      role="img"
      aria-label={words}
      onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
    >
      {width > 0 && (
        <LineChart
          data={{
            labels: points.map(({ bits }) => (bits / 1e6).toFixed(1)),
            datasets: [{ data: points.map(({ ssim }) => ssim) }],
          }}
          width={width}
          height={HEIGHT}
          chartConfig={CHART}
          formatYLabel={(value) => Number(value).toFixed(3)}
          segments={3}
          withVerticalLines={false}
          decorator={() => (
            <Line
              key="advised"
              x1={across(toPlace(knee, points))}
              x2={across(toPlace(knee, points))}
              y1={TOP}
              y2={HEIGHT * 0.75 + TOP}
              stroke={colours.ink}
              strokeWidth={2}
            />
          )}
          style={styles.chart}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({ chart: { paddingRight: LEFT, paddingBottom: 0 } });
