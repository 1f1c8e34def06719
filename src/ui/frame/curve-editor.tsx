import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import Svg, { Circle, Line, Path, Rect } from 'react-native-svg';
import { type Ease, applyEase } from '@core/framing/easing';
import { clamp } from '@core/picture/size';
import { colours } from '../theme/tokens';

/** Side of the square, and its margin, so that handles at its edge are whole, in pixels. */
const SIDE = 88;
const MARGIN = 14;
const BOX = SIDE + 2 * MARGIN;
/** Moments of even time that show how the way is gone. */
const MOMENTS = 9;

type Curve = NonNullable<Ease>;
/** The control points of a straight line. */
const STRAIGHT: Curve = [0, 0, 1, 1];

const across = (x: number) => MARGIN + x * SIDE;
const up = (y: number) => MARGIN + (1 - y) * SIDE;

/** The way from one keyframe to the next as a curve in a square, with two handles; below it how that looks in motion. */
export function CurveEditor({ ease, onChange }: { ease: Ease; onChange: (ease: Curve) => void }) {
  const [drawn, setDrawn] = useState<Curve | null>(null);
  const [x1, y1, x2, y2] = drawn ?? ease ?? STRAIGHT;
  const held = useRef<0 | 1>(0);
  const placeHandle = (handle: 0 | 1, { x, y }: { x: number; y: number }): Curve => {
    const [px, py] = [clamp((x - MARGIN) / SIDE, 0, 1), clamp(1 - (y - MARGIN) / SIDE, 0, 1)];
    const [a, b] = [Number(px.toFixed(2)), Number(py.toFixed(2))];
    return handle === 0 ? [a, b, x2, y2] : [x1, y1, a, b];
  };
  const nearer = ({ x, y }: { x: number; y: number }): 0 | 1 =>
    Math.hypot(x - across(x1), y - up(y1)) <= Math.hypot(x - across(x2), y - up(y2)) ? 0 : 1;
  const drag = Gesture.Pan()
    .runOnJS(true)
    .minDistance(0)
    .onBegin((at) => {
      held.current = nearer(at);
    })
    .onUpdate((at) => setDrawn(placeHandle(held.current, at)))
    .onEnd((at) => {
      setDrawn(null);
      onChange(placeHandle(held.current, at));
    });
  const shown: Ease = [x1, y1, x2, y2];
  return (
    <GestureDetector gesture={drag}>
      <View role="img" aria-label="Curve to the next keyframe" style={styles.area}>
        <Svg width={BOX} height={BOX + 16}>
          <Rect x={MARGIN} y={MARGIN} width={SIDE} height={SIDE} fill={colours.sheet} stroke={colours.edge} />
          <Line x1={across(0)} y1={up(0)} x2={across(x1)} y2={up(y1)} stroke={colours.softInk} />
          <Line x1={across(1)} y1={up(1)} x2={across(x2)} y2={up(y2)} stroke={colours.softInk} />
          <Path
            d={`M${across(0)} ${up(0)}C${across(x1)} ${up(y1)} ${across(x2)} ${up(y2)} ${across(1)} ${up(1)}`}
            fill="none"
            stroke={colours.ink}
            strokeWidth={2}
          />
          {[
            [x1, y1],
            [x2, y2],
          ].map(([x = 0, y = 0], i) => (
            <Circle
              key={i}
              cx={across(x)}
              cy={up(y)}
              r={8}
              fill={colours.chalk}
              stroke={colours.woad}
              strokeWidth={3}
            />
          ))}
          {Array.from({ length: MOMENTS }, (_, i) => (
            <Circle
              key={i}
              cx={across(applyEase(shown, i / (MOMENTS - 1)))}
              cy={BOX + 6}
              r={3.5}
              fill={colours.ink}
              fillOpacity={0.25 + (0.75 * i) / (MOMENTS - 1)}
            />
          ))}
        </Svg>
      </View>
    </GestureDetector>
  );
}

const styles = StyleSheet.create({ area: { cursor: 'grab' as 'pointer', userSelect: 'none' } });
