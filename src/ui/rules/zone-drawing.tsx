import Svg, { Defs, Line, Pattern, Rect, Text as Label } from 'react-native-svg';
import type { Zone } from '@core/outlets/placement';
import { colours, fonts } from '../theme/tokens';

interface Props {
  /** In pixels. */
  width: number;
  height: number;
  zones: readonly Zone[];
  /** The place of the zone that is worked on. */
  chosen?: number;
}

/** Overlay zones as hatched blocks with a caption, over a canvas. */
export function ZoneDrawing({ width, height, zones, chosen = -1 }: Props) {
  return (
    <Svg width={width} height={height} aria-hidden>
      <Defs>
        <Pattern id="hatch" width={8} height={8} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <Line x1={0} y1={0} x2={0} y2={8} stroke={colours.edge} strokeWidth={2} />
        </Pattern>
      </Defs>
      {zones.map((zone, i) => {
        const [x, y] = [zone.x * width, zone.y * height];
        const [w, h] = [zone.width * width, zone.height * height];
        const on = i === chosen;
        return [
          <Rect
            key={`block ${i}`}
            x={x}
            y={y}
            width={w}
            height={h}
            fill="url(#hatch)"
            stroke={on ? colours.woad : colours.edge}
            strokeWidth={on ? 3 : 1}
          />,
          ...(w > 60
            ? [
                <Rect
                  key={`ground ${i}`}
                  x={x + 2}
                  y={y + 2}
                  width={Math.min(w - 4, zone.name.length * 6.4 + 6)}
                  height={15}
                  fill={colours.sheet}
                />,
                <Label
                  key={`name ${i}`}
                  x={x + 5}
                  y={y + 13}
                  fill={colours.ink}
                  fontFamily={fonts.strong}
                  fontSize={12}
                >
                  {zone.name}
                </Label>,
              ]
            : []),
        ];
      })}
    </Svg>
  );
}
