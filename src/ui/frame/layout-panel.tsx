import { Pressable, ScrollView, StyleSheet } from 'react-native';
import Svg, { Rect as Box } from 'react-native-svg';
import { type Layout, type LayoutKind, LAYOUTS, panesOf, tracksOf } from '@core/layout/layout';
import { useBench } from '@state/bench';
import { Choice } from '../parts/choice';
import { Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import { LayoutDetails } from './layout-details';
import type { FramingTools } from './use-framing';
import { useLayout } from './use-layout';

const NAMES: Record<LayoutKind, string> = {
  single: 'Single',
  stacked: 'Stacked',
  inset: 'Inset',
  banded: 'Banded',
  backdrop: 'Soft backdrop',
  turned: 'Turned',
};

/** How the canvas is divided, and which of its panes is worked on. */
export function LayoutPanel({ tools }: { tools: FramingTools }) {
  const setLayout = useLayout();
  const { layout } = tools.canvas;
  const tracks = tracksOf(layout);
  return (
    <>
      <ScrollView
        horizontal
        role="radiogroup"
        aria-label="Layout"
        showsHorizontalScrollIndicator={false}
        contentContainerStyle={styles.kinds}
      >
        {LAYOUTS.map((kind) => (
          <Pressable
            key={kind}
            role="radio"
            aria-label={NAMES[kind]}
            aria-checked={kind === layout.kind}
            onPress={() => setLayout({ kind })}
            style={[styles.kind, kind === layout.kind && styles.on]}
          >
            <LayoutDrawing layout={{ ...layout, kind }} />
            <Soft>{NAMES[kind]}</Soft>
          </Pressable>
        ))}
      </ScrollView>
      {tracks.length > 1 && (
        <Choice
          label="Pane"
          value={tools.track}
          options={tracks.map((track, i) => ({ value: track, label: `Pane ${i + 1}` }))}
          onChange={(track) => useBench.setState({ track })}
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
  const inner = layout.kind === 'banded' || layout.kind === 'backdrop';
  return (
    <Svg {...DRAWING} aria-hidden>
      <Box
        width={DRAWING.width}
        height={DRAWING.height}
        fill={layout.kind === 'backdrop' ? colours.hairline : colours.paper}
        stroke={colours.ink}
        strokeWidth={1.5}
      />
      {inner ? (
        <Box x={0} y={10} width={DRAWING.width} height={15} fill={colours.woadWash} stroke={colours.ink} />
      ) : (
        panesOf(layout, size).map(({ rect, radius }, i) => (
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
      {layout.kind === 'turned' && (
        <Box x={9} y={9} width={9} height={18} fill={colours.woadWash} stroke={colours.ink} />
      )}
    </Svg>
  );
}

const styles = StyleSheet.create({
  kinds: { gap: space.s },
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
