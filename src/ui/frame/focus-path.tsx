import { useMemo } from 'react';
import { Circle, Path } from 'react-native-svg';
import { findKeyframe } from '@core/framing/framing';
import { toPicture } from '@core/picture/live-area';
import { colours } from '../theme/tokens';
import type { FramingTools } from './use-framing';

/** Where the focus goes over the shot: a line, a dot a frame so that speed is seen, a ring a keyframe. */
export function FocusPath({ tools, width, height }: { tools: FramingTools; width: number; height: number }) {
  const { framing, shot, live, frame } = tools;
  const focusAt = useMemo(() => {
    const placeKey = (of: number) => {
      const { focus } = findKeyframe(framing.keyframes, of);
      const { x, y } = toPicture({ ...focus, width: 0, height: 0 }, live);
      return { x: x * width, y: y * height };
    };
    return placeKey;
  }, [framing, live, width, height]);
  const path = useMemo(() => {
    const { keyframes } = framing;
    if (keyframes.length < 2) return null;
    const first = Math.max(shot.in, keyframes[0]?.frame ?? 0);
    const last = Math.min(shot.out - 1, keyframes[keyframes.length - 1]?.frame ?? 0);
    const places = Array.from({ length: Math.max(0, last - first + 1) }, (_, n) => focusAt(first + n));
    const points = places.map(({ x, y }) => `${x.toFixed(1)} ${y.toFixed(1)}`);
    return { line: `M${points.join('L')}`, dots: points.map((point) => `M${point}h0`).join('') };
  }, [framing, shot, focusAt]);
  const now = focusAt(frame);
  return (
    <>
      {path && (
        <>
          <Path d={path.line} fill="none" stroke={colours.paper} strokeWidth={4} />
          <Path d={path.line} fill="none" stroke={colours.ink} strokeWidth={1} />
          <Path d={path.dots} fill="none" stroke={colours.ink} strokeWidth={4} strokeLinecap="round" />
        </>
      )}
      {path &&
        framing.keyframes.map((key) => {
          const { x, y } = focusAt(key.frame);
          return (
            <Circle
              key={key.frame}
              cx={x}
              cy={y}
              r={5}
              fill={colours.paper}
              stroke={colours.ink}
              strokeWidth={2}
            />
          );
        })}
      <Path
        d={`M${now.x - 8} ${now.y}H${now.x + 8}M${now.x} ${now.y - 8}V${now.y + 8}`}
        stroke={colours.paper}
        strokeWidth={5}
      />
      <Path
        d={`M${now.x - 7} ${now.y}H${now.x + 7}M${now.x} ${now.y - 7}V${now.y + 7}`}
        stroke={colours.madder}
        strokeWidth={2}
      />
    </>
  );
}
