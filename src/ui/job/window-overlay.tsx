import { StyleSheet } from 'react-native';
import Svg, { Path, Rect as Box, Text as Label } from 'react-native-svg';
import type { Rect } from '@core/picture/size';
import type { CanvasMark } from '../theme/dyes';
import { colours, fonts } from '../theme/tokens';

interface Props {
  /** Size of the picture on screen, in pixels. */
  width: number;
  height: number;
  /** 0…1 of the picture. */
  window: Rect;
  mark: CanvasMark;
  /** The window's name, written on it. */
  name: string;
}

/** Side of a notch, in pixels. */
const NOTCH = 7;
const NAME_SIZE = 12;

/** The window on the master: a chalk outline with notches at the thirds; the rest lies under paper. */
export function WindowOverlay({ width, height, window, mark, name }: Props) {
  const x = window.x * width;
  const y = window.y * height;
  const w = window.width * width;
  const h = window.height * height;
  const outside = `M0 0H${width}V${height}H0Z M${x} ${y}V${y + h}H${x + w}V${y}Z`;
  const notches = [1 / 3, 2 / 3].flatMap((third) => [
    `M${x + w * third - NOTCH} ${y}h${2 * NOTCH}l${-NOTCH} ${NOTCH}Z`,
    `M${x + w * third - NOTCH} ${y + h}h${2 * NOTCH}l${-NOTCH} ${-NOTCH}Z`,
  ]);
  return (
    <Svg width={width} height={height} style={styles.over} aria-hidden>
      <Path d={outside} fill={colours.papered} fillRule="evenodd" />
      {/* The outline is drawn twice, so that chalk lies under the dye. */}
      {[colours.chalk, mark.dye].map((colour, i) => (
        <Box
          key={colour}
          x={x + 1.5}
          y={y + 1.5}
          width={Math.max(0, w - 3)}
          height={Math.max(0, h - 3)}
          fill="none"
          stroke={colour}
          strokeWidth={i === 0 ? 5 : 3}
          strokeDasharray={i === 0 ? [] : mark.dashes}
        />
      ))}
      {notches.map((d) => (
        <Path key={d} d={d} fill={mark.dye} />
      ))}
      {/* The name is written twice, so that chalk lies under it. */}
      {[colours.chalk, mark.dye].map((colour, i) => (
        <Label
          key={colour}
          x={x + 8}
          y={y + 14 + NAME_SIZE}
          fill={colour}
          stroke={i === 0 ? colour : 'none'}
          strokeWidth={4}
          fontFamily={fonts.strong}
          fontSize={NAME_SIZE}
        >
          {name}
        </Label>
      ))}
    </Svg>
  );
}

const styles = StyleSheet.create({ over: { position: 'absolute', left: 0, top: 0, pointerEvents: 'none' } });
