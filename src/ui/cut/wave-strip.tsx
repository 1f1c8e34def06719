import { useMemo } from 'react';
import { StyleSheet } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { Source } from '@core/master/source';
import { secondsOf } from '@core/time/frame-rate';
import { useWave } from '@state/strip';
import { colours } from '../theme/tokens';

const HEIGHT = 22;
/** Fifty peaks a second, as the pass counts them. */
const PEAKS_A_SECOND = 50;

/** The sound's level along the master, drawn under its pictures. */
export function WaveStrip({ source, width }: { source: Source; width: number }) {
  const wave = useWave(source);
  const seconds = secondsOf(source.frames, source.rate);
  const path = useMemo(() => {
    if (!wave) return '';
    const columns = Math.max(1, Math.floor(width / 2));
    const parts: string[] = [];
    for (let i = 0; i < columns; i++) {
      const from = Math.floor((i / columns) * seconds * PEAKS_A_SECOND);
      const to = Math.max(from + 1, Math.floor(((i + 1) / columns) * seconds * PEAKS_A_SECOND));
      let peak = 0;
      for (let k = from; k < to; k++) peak = Math.max(peak, wave[k] ?? 0);
      const half = Math.max(0.5, (peak / 255) * (HEIGHT / 2));
      parts.push(`M${i * 2 + 1} ${(HEIGHT / 2 - half).toFixed(1)}V${(HEIGHT / 2 + half).toFixed(1)}`);
    }
    return parts.join('');
  }, [wave, width, seconds]);
  if (!wave) return null;
  return (
    <Svg width={width} height={HEIGHT} style={styles.wave} aria-hidden>
      <Path d={path} stroke={colours.softInk} strokeWidth={1.3} />
    </Svg>
  );
}

const styles = StyleSheet.create({ wave: { pointerEvents: 'none' } });
