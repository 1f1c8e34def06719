import type { ReactNode } from 'react';
import { StyleSheet } from 'react-native';
import Svg, { Path, Text as Label } from 'react-native-svg';
import { computeCorners, type PictureWindow } from '@core/framing/window';
import type { CanvasMark } from '../theme/dyes';
import { colours, fonts } from '../theme/tokens';

/** Window on the master. */
export interface ShownWindow {
  key: string;
  /** 0…1 of the picture. */
  window: PictureWindow;
  mark: CanvasMark;
  /** Written on the window that is worked on. */
  name: string;
}

interface Props {
  /** Size of the picture on screen, in pixels. */
  width: number;
  height: number;
  /** The window that is worked on: the only one with notches, a name, and handles where it can be dragged. */
  active: ShownWindow;
  others?: readonly ShownWindow[];
  handles?: boolean;
  children?: ReactNode;
}

/** Half the side of a notch at its foot, and of a handle, in pixels. */
const NOTCH = 7;
const HANDLE = 6;
const NAME_SIZE = 12;

type Corner = { x: number; y: number };

/** Windows on the master: chalk outlines in their canvases' dyes; what the active one leaves out lies under paper. */
export function WindowOverlay({ width, height, active, others = [], handles = false, children }: Props) {
  const toCorners = (window: PictureWindow): Corner[] =>
    computeCorners(window, width / height).map(({ x, y }) => ({ x: x * width, y: y * height }));
  const corners = toCorners(active.window);
  const [first] = corners as [Corner];
  const outside = `M0 0H${width}V${height}H0Z ${toSvgPath(corners)}`;
  return (
    <Svg width={width} height={height} style={styles.over} aria-hidden>
      <Path d={outside} fill={colours.papered} fillRule="evenodd" />
      {others.map(({ key, window, mark }) => (
        <Outline key={key} d={toSvgPath(inset(toCorners(window), 1))} mark={mark} wide={1.5} />
      ))}
      <Outline d={toSvgPath(inset(corners, 1.5))} mark={active.mark} wide={3} />
      {toNotches(corners).map((d) => (
        <Path key={d} d={d} fill={active.mark.dye} />
      ))}
      {handles &&
        corners.map(({ x, y }, i) => (
          <Path
            key={i}
            d={toSvgPath(inset(toSquare(x, y), 0))}
            fill={colours.paper}
            stroke={active.mark.dye}
            strokeWidth={2}
          />
        ))}
      {/* The name is written twice, so that chalk lies under it. */}
      {[colours.paper, active.mark.dye].map((colour, i) => (
        <Label
          key={colour}
          x={Math.min(Math.max(first.x + 8, 4), width - 60)}
          y={Math.min(Math.max(first.y + 14 + NAME_SIZE, NAME_SIZE + 4), height - 6)}
          fill={colour}
          stroke={i === 0 ? colour : 'none'}
          strokeWidth={4}
          fontFamily={fonts.strong}
          fontSize={NAME_SIZE}
        >
          {active.name}
        </Label>
      ))}
      {children}
    </Svg>
  );
}

/** An outline drawn twice, so that chalk lies under the dye. */
function Outline({ d, mark, wide }: { d: string; mark: CanvasMark; wide: number }) {
  return (
    <>
      <Path d={d} fill="none" stroke={colours.paper} strokeWidth={wide + 2} />
      <Path d={d} fill="none" stroke={mark.dye} strokeWidth={wide} strokeDasharray={mark.dashes} />
    </>
  );
}

const toSvgPath = (corners: readonly Corner[]): string =>
  `M${corners.map(({ x, y }) => `${x.toFixed(2)} ${y.toFixed(2)}`).join('L')}Z`;

/** Corners moved toward their middle, so that the line lies inside. */
function inset(corners: readonly Corner[], by: number): Corner[] {
  const middle = {
    x: corners.reduce((sum, corner) => sum + corner.x, 0) / corners.length,
    y: corners.reduce((sum, corner) => sum + corner.y, 0) / corners.length,
  };
  return corners.map(({ x, y }) => ({
    x: x + Math.sign(middle.x - x) * by,
    y: y + Math.sign(middle.y - y) * by,
  }));
}

const toSquare = (x: number, y: number): Corner[] => [
  { x: x - HANDLE, y: y - HANDLE },
  { x: x + HANDLE, y: y - HANDLE },
  { x: x + HANDLE, y: y + HANDLE },
  { x: x - HANDLE, y: y + HANDLE },
];

/** Notches at the thirds of the two sides that are across, pointing inward. */
function toNotches(corners: readonly Corner[]): string[] {
  const [a, b, c, d] = corners as [Corner, Corner, Corner, Corner];
  const on = (from: Corner, to: Corner, inward: Corner) =>
    [1 / 3, 2 / 3].map((third) => {
      const long = Math.hypot(to.x - from.x, to.y - from.y) || 1;
      const deep = Math.hypot(inward.x, inward.y) || 1;
      const point = { x: from.x + (to.x - from.x) * third, y: from.y + (to.y - from.y) * third };
      const along = { x: ((to.x - from.x) / long) * NOTCH, y: ((to.y - from.y) / long) * NOTCH };
      const tip = { x: point.x + (inward.x / deep) * NOTCH, y: point.y + (inward.y / deep) * NOTCH };
      return toSvgPath([
        { x: point.x - along.x, y: point.y - along.y },
        { x: point.x + along.x, y: point.y + along.y },
        tip,
      ]);
    });
  return [...on(a, b, { x: d.x - a.x, y: d.y - a.y }), ...on(d, c, { x: a.x - d.x, y: a.y - d.y })];
}

const styles = StyleSheet.create({ over: { position: 'absolute', left: 0, top: 0, pointerEvents: 'none' } });
