import { create } from 'qrcode';
import { useMemo } from 'react';
import Svg, { Path, Rect } from 'react-native-svg';

/** Light modules around a code. Source: ISO/IEC 18004:2015, 9.1. */
const QUIET = 4;

/** A text as a code to scan (ISO/IEC 18004), dark on light in any theme. @param side in pixels. */
export function ScanCode({ text, label, side }: { text: string; label: string; side: number }) {
  const { size, drawn } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: 'M' });
    const rows = Array.from(modules.data, (dark, n) =>
      dark ? `M${n % modules.size} ${Math.floor(n / modules.size)}h1v1h-1z` : '',
    );
    return { size: modules.size, drawn: rows.join('') };
  }, [text]);
  const whole = size + 2 * QUIET;
  return (
    <Svg
      role="img"
      aria-label={label}
      width={side}
      height={side}
      viewBox={`${-QUIET} ${-QUIET} ${whole} ${whole}`}
    >
      <Rect x={-QUIET} y={-QUIET} width={whole} height={whole} fill="#fff" />
      <Path d={drawn} fill="#000" />
    </Svg>
  );
}
