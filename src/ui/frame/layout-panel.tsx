import { Pressable, ScrollView, StyleSheet } from 'react-native';
import Svg, { Rect as Box } from 'react-native-svg';
import { type Layout, layoutLabel, LAYOUTS, listPanes, listFramingTracks } from '@core/layout/layout';
import { useFramingUi } from '@state/framing';
import { Choice } from '../parts/choice';
import { Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import { LayoutDetails } from './layout-details';
import type { FramingTools } from './use-framing';
import { useLayout } from './use-layout';

/** How the canvas is divided, and which of its panes is worked on. */
export function LayoutPanel({ tools }: { tools: FramingTools }) {
  const setLayout = useLayout();
  const { layout } = tools.canvas;
  const tracks = listFramingTracks(layout);
  return (
    <>
      <ScrollView
        horizontal
        role="radiogroup"
        aria-label="Layout"
        showsHorizontalScrollIndicator={false}
        style={styles.row}
        contentContainerStyle={styles.kinds}
      >
        {LAYOUTS.map((kind) => (
          <Pressable
            key={kind}
            role="radio"
            aria-label={layoutLabel(kind)}
            aria-checked={kind === layout.kind}
            onPress={() => setLayout({ kind })}
            style={[styles.kind, kind === layout.kind && styles.on]}
          >
            <LayoutDrawing layout={{ ...layout, kind }} />
            <Soft>{layoutLabel(kind)}</Soft>
          </Pressable>
        ))}
      </ScrollView>
      {tracks.length > 1 && (
        <Choice
          label="Pane"
          value={tools.track}
          options={tracks.map((track, i) => ({ value: track, label: `Pane ${i + 1}` }))}
          onChange={(track) => useFramingUi.setState({ track })}
        />
      )}
      <LayoutDetails layout={layout} setLayout={setLayout} />
    </>
  );
}

const DRAWING = { width: 27, height: 36 };

/** A layout in little. */
function LayoutDrawing({ layout }: { layout: Layout }) {
  const size = { width: 108, height: 144 };
  const scale = DRAWING.width / size.width;
  const panes = listPanes(layout, size);
  const isFitted = panes.some(({ mode }) => mode === 'fit');
  return (
    <Svg {...DRAWING} aria-hidden>
      <Box
        width={DRAWING.width}
        height={DRAWING.height}
        fill={panes.some(({ blur }) => blur > 0) ? colours.hairline : colours.paper}
        stroke={colours.ink}
        strokeWidth={1.5}
      />
      {isFitted ? (
        <Box x={0} y={10} width={DRAWING.width} height={15} fill={colours.woadWash} stroke={colours.ink} />
      ) : (
        panes.map(({ rect, radius }, i) => (
          <Box
            key={i}
            x={rect.x * scale}
            y={rect.y * scale}
            width={rect.width * scale}
            height={rect.height * scale}
            rx={radius * scale}
            fill={i === 0 ? 'none' : colours.woadWash}
            stroke={colours.ink}
          />
        ))
      )}
      {panes.some(({ turn }) => turn !== 0) && (
        <Box x={9} y={9} width={9} height={18} fill={colours.woadWash} stroke={colours.ink} />
      )}
    </Svg>
  );
}

const styles = StyleSheet.create({
  row: { flexGrow: 0, flexShrink: 0 },
  kinds: { gap: space.s, alignItems: 'flex-start' },
  kind: {
    minWidth: 66,
    minHeight: TARGET,
    padding: space.xs,
    alignItems: 'center',
    gap: 2,
    borderRadius: 6,
    borderWidth: 2,
    borderColor: 'transparent',
  },
  on: { borderColor: colours.woad, backgroundColor: colours.woadWash },
});
