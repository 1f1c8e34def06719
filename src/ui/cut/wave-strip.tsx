import { useMemo } from 'react';
import { StyleSheet } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { Source } from '@core/master/source';
import { toSeconds } from '@core/time/frame-rate';
import { useWave } from '@state/picture';
import { colours } from '../theme/tokens';

const HEIGHT = 22;
/** Fifty peaks a second, as the pass counts them. */
const PEAKS_A_SECOND = 50;

/** The sound's level between two frames of the master, drawn under its pictures. */
export function WaveStrip({
  source,
  width,
  from,
  to,
}: {
  source: Source;
  width: number;
  from: number;
  to: number;
}) {
  const wave = useWave(source);
  const [first, last] = [toSeconds(from, source.rate), toSeconds(to, source.rate)];
  const path = useMemo(() => {
    if (!wave) return '';
    const columns = Math.max(1, Math.floor(width / 2));
    const getPeak = (column: number) =>
      Math.floor((first + (column / columns) * (last - first)) * PEAKS_A_SECOND);
    const parts: string[] = [];
    for (let i = 0; i < columns; i++) {
      let peak = 0;
      for (let k = getPeak(i); k < Math.max(getPeak(i) + 1, getPeak(i + 1)); k++)
        peak = Math.max(peak, wave[k] ?? 0);
      const half = Math.max(0.5, (peak / 255) * (HEIGHT / 2));
      parts.push(`M${i * 2 + 1} ${(HEIGHT / 2 - half).toFixed(1)}V${(HEIGHT / 2 + half).toFixed(1)}`);
    }
    return parts.join('');
  }, [wave, width, first, last]);
  if (!wave) return null;
  return (
    <Svg width={width} height={HEIGHT} style={styles.wave} aria-hidden>
      <Path d={path} stroke={colours.softInk} strokeWidth={1.3} />
    </Svg>
  );
}

const styles = StyleSheet.create({ wave: { pointerEvents: 'none' } });
