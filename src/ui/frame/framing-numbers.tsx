import { StyleSheet, View } from 'react-native';
import { LEAST_ZOOM, MOST_ZOOM, keyframeAt } from '@core/framing/framing';
import { usePlayer } from '@state/player';
import { useSource } from '../job/job-context';
import { NumberField } from '../parts/number-field';
import { Figures, Soft } from '../parts/words';
import { space } from '../theme/tokens';
import type { FramingTools } from './use-framing';

/** A place in pixels, to the hundredth, without idle zeros. */
const pixelsText = (value: number): string => String(Number(value.toFixed(2)));

/** The window's place and zoom as numbers that can be typed. */
export function FramingNumbers({ tools }: { tools: FramingTools }) {
  const { picture } = useSource();
  const frame = usePlayer((state) => state.frame);
  const { framing, window } = tools;
  const { zoom } = keyframeAt(framing.keyframes, frame);
  const place = (axis: 'x' | 'y', size: number) => (text: string) => {
    const wanted = Number(text.replace(',', '.'));
    if (!Number.isFinite(wanted)) return false;
    const by = wanted / size - window[axis];
    tools.move(framing, axis === 'x' ? { x: by, y: 0 } : { x: 0, y: by }, true);
    return true;
  };
  const setZoom = (text: string) => {
    const wanted = Number(text.replace(',', '.').replace('×', ''));
    if (!(wanted >= LEAST_ZOOM && wanted <= MOST_ZOOM)) return false;
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

/** How far the window may still move, and how much the master is enlarged. */
export function MarginFacts({ tools }: { tools: FramingTools }) {
  const { margin, enlarged, framing, fills } = tools;
  const pixels = (value: number) => String(Math.round(value));
  const rows: [string, string][] = fills
    ? [
        ['Margin left, right', `${pixels(margin.left)}, ${pixels(margin.right)} px`],
        ['Margin top, bottom', `${pixels(margin.top)}, ${pixels(margin.bottom)} px`],
      ]
    : [['The whole picture', 'is shown']];
  rows.push([enlarged > 1 ? 'Enlarged to' : 'Shown at', `${(enlarged * 100).toFixed(1)} %`]);
  rows.push([
    'This shot',
    framing.keyframes.length > 1 ? `moves, ${framing.keyframes.length} keyframes` : 'stays in place',
  ]);
  return (
    <View style={styles.facts}>
      {rows.map(([name, value]) => (
        <View key={name} aria-label={`${name}: ${value}`}>
          <Soft>{name}</Soft>
          <Figures style={styles.value}>{value}</Figures>
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.m },
  facts: { flex: 1, minWidth: 130, gap: space.s },
  value: { fontSize: 14 },
});
