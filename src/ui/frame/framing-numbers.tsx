import { StyleSheet, View } from 'react-native';
import { keyframeAt, LEAST_ZOOM, MOST_ZOOM } from '@core/framing/framing';
import { useSource } from '../job/job-context';
import { NumberField } from '../parts/number-field';
import { space } from '../theme/tokens';
import type { FramingTools } from './use-framing';

/** A place in pixels, to the hundredth, without idle zeros. */
const pixelsText = (value: number): string => String(Number(value.toFixed(2)));
const numberIn = (text: string): number => Number(text.replace(',', '.').replace('×', ''));

/** The window's place and zoom as numbers that can be typed. */
export function FramingNumbers({ tools }: { tools: FramingTools }) {
  const { picture } = useSource();
  const { framing, window, frame } = tools;
  const { zoom } = keyframeAt(framing.keyframes, frame);
  const place = (axis: 'x' | 'y', size: number) => (text: string) => {
    const wanted = numberIn(text);
    if (!Number.isFinite(wanted) || tools.fits) return false;
    const by = wanted / size - window[axis];
    tools.move(framing, axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by }, true);
    return true;
  };
  const setZoom = (text: string) => {
    const wanted = numberIn(text);
    if (!(wanted >= LEAST_ZOOM && wanted <= MOST_ZOOM) || tools.fits) return false;
    const middle = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
    tools.zoom(framing, wanted / zoom, middle, true);
    return true;
  };
  return (
    <View style={styles.row}>
      <NumberField
        label="From left"
        unit="px"
        value={pixelsText(window.x * picture.width)}
        onSubmit={place('x', picture.width)}
      />
      <NumberField
        label="From top"
        unit="px"
        value={pixelsText(window.y * picture.height)}
        onSubmit={place('y', picture.height)}
      />
      <NumberField
        label="Zoom"
        unit={`${LEAST_ZOOM} to ${MOST_ZOOM}`}
        value={zoom.toFixed(2)}
        onSubmit={setZoom}
      />
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', gap: space.m } });
