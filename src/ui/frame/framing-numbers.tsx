import { StyleSheet, View } from 'react-native';
import { findKeyframe, MIN_ZOOM, MAX_ZOOM } from '@core/framing/framing';
import { useSource } from '../job/job-context';
import { NumberField } from '../parts/number-field';
import { Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { FramingTools } from './use-framing';

/** A place in pixels, to the hundredth, without idle zeros. */
const pixelsText = (value: number): string => String(Number(value.toFixed(2)));

/** The window's place and zoom as numbers that can be typed. */
export function FramingNumbers({ tools }: { tools: FramingTools }) {
  const { picture } = useSource();
  const { framing, window, frame } = tools;
  if (tools.fits) return <Soft>The whole picture is shown here: there is no window to move or to zoom.</Soft>;
  const { zoom } = findKeyframe(framing.keyframes, frame);
  const middle = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
  return (
    <View style={styles.row}>
      <NumberField
        label="From left"
        unit="px"
        value={pixelsText(window.x * picture.width)}
        onTake={(x) => tools.move(framing, { x: x / picture.width - window.x, y: 0 }, true)}
      />
      <NumberField
        label="From top"
        unit="px"
        value={pixelsText(window.y * picture.height)}
        onTake={(y) => tools.move(framing, { x: 0, y: y / picture.height - window.y }, true)}
      />
      <NumberField
        label="Zoom"
        unit={`${MIN_ZOOM} to ${MAX_ZOOM}`}
        least={MIN_ZOOM}
        most={MAX_ZOOM}
        value={zoom.toFixed(2)}
        onTake={(wanted) => tools.zoom(framing, wanted / zoom, middle, true)}
      />
    </View>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', gap: space.m } });
