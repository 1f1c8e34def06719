import { Text as Label } from 'react-native-svg';
import { computeBounds } from '@core/framing/window';
import { colours, fonts } from '../theme/tokens';
import type { FramingTools } from './use-framing';

const SIZE = 11;
/** A margin with less room than this on screen has no figure, in pixels. */
const ROOM = 26;

/** How far the window may still move, in picture pixels, written where the room is. */
export function MarginLabels({
  tools,
  width,
  height,
}: {
  tools: FramingTools;
  width: number;
  height: number;
}) {
  const { margin, window } = tools;
  const bounds = computeBounds(window, width / height);
  const left = bounds.x * width;
  const right = (1 - bounds.x - bounds.width) * width;
  const top = bounds.y * height;
  const bottom = (1 - bounds.y - bounds.height) * height;
  const middleX = left + (bounds.width * width) / 2;
  const labels = [
    { room: left, x: left / 2, y: height - 8, value: margin.left },
    { room: right, x: width - right / 2, y: height - 8, value: margin.right },
    { room: top, x: middleX, y: top / 2 + SIZE / 2, value: margin.top },
    { room: bottom, x: middleX, y: height - bottom / 2 + SIZE / 2, value: margin.bottom },
  ];
  return labels
    .filter(({ room }) => room >= ROOM)
    .map(({ x, y, value }) => (
      <Label
        key={`${x} ${y}`}
        x={x}
        y={y}
        textAnchor="middle"
        fill={colours.ink}
        fontFamily={fonts.figures}
        fontSize={SIZE}
      >
        {`${Math.round(value)} px`}
      </Label>
    ));
}
