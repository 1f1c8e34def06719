import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import Svg, { Rect as Box } from 'react-native-svg';
import {
  BAND_COLOURS,
  CORNERS,
  type Layout,
  type LayoutKind,
  LAYOUTS,
  panesOf,
  tracksOf,
} from '@core/layout/layout';
import { clamp } from '@core/picture/size';
import { useBench } from '@state/bench';
import { Choice } from '../parts/choice';
import { Tool } from '../parts/tool';
import { Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
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
      <Details layout={layout} setLayout={setLayout} />
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

interface DetailProps {
  layout: Layout;
  setLayout: (change: Partial<Layout>, joins?: string) => void;
}

/** What can be set of the layout that is chosen. */
function Details({ layout, setLayout }: DetailProps) {
  switch (layout.kind) {
    case 'single':
      return null;
    case 'stacked':
      return (
        <Choice
          label="Stacked panes"
          value={layout.stacked.panes === 2 ? '2' : '3'}
          options={[
            { value: '2', label: 'Two panes' },
            { value: '3', label: 'Three panes' },
          ]}
          onChange={(panes) => setLayout({ stacked: stackOf(panes === '2' ? 2 : 3) })}
        />
      );
    case 'inset':
      return <InsetDetails layout={layout} setLayout={setLayout} />;
    case 'banded':
      return <BandDetails layout={layout} setLayout={setLayout} />;
    case 'backdrop': {
      const { blur } = layout.backdrop;
      const by = (change: number) =>
        setLayout({ backdrop: { blur: clamp(blur + change, 0.01, 0.2) } }, 'blur');
      return (
        <View style={styles.tools}>
          <Tool
            icon="blur"
            label="Softer backdrop"
            words="Softer"
            disabled={blur >= 0.2}
            onPress={() => by(0.02)}
          />
          <Tool
            icon="blur-off"
            label="Sharper backdrop"
            words="Sharper"
            disabled={blur <= 0.01}
            onPress={() => by(-0.02)}
          />
        </View>
      );
    }
    case 'turned':
      return (
        <Choice
          label="Turned"
          value={layout.turned.clockwise ? 'right' : 'left'}
          options={[
            { value: 'right', label: 'To the right' },
            { value: 'left', label: 'To the left' },
          ]}
          onChange={(way) => setLayout({ turned: { clockwise: way === 'right' } })}
        />
      );
  }
}

/** Panes of even height. */
const stackOf = (panes: 2 | 3): Layout['stacked'] => ({
  panes,
  dividers: panes === 2 ? [0.5, 0.75] : [1 / 3, 2 / 3],
});

function InsetDetails({ layout, setLayout }: DetailProps) {
  const { inset } = layout;
  const set = (change: Partial<Layout['inset']>, joins?: string) =>
    setLayout({ inset: { ...inset, ...change } }, joins);
  const next = CORNERS[(CORNERS.indexOf(inset.corner) + 1) % CORNERS.length] ?? CORNERS[0];
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.tools}>
      <Tool
        icon="arrow-top-left-bottom-right"
        label="Next corner"
        words="Corner"
        onPress={() => set({ corner: next })}
      />
      <Tool
        icon="plus"
        label="Larger inset"
        words="Larger"
        onPress={() => set({ width: clamp(inset.width + 0.05, 0.15, 0.9) }, 'inset')}
      />
      <Tool
        icon="minus"
        label="Smaller inset"
        words="Smaller"
        onPress={() => set({ width: clamp(inset.width - 0.05, 0.15, 0.9) }, 'inset')}
      />
      <Tool
        icon="rounded-corner"
        label="Rounder corners"
        words="Rounder"
        onPress={() => set({ radius: clamp(inset.radius + 0.1, 0, 0.5) }, 'round')}
      />
      <Tool
        icon="square-outline"
        label="Squarer corners"
        words="Squarer"
        onPress={() => set({ radius: clamp(inset.radius - 0.1, 0, 0.5) }, 'round')}
      />
      <Tool
        icon="arrow-collapse-all"
        label="Nearer to the edge"
        words="Nearer"
        onPress={() => set({ margin: clamp(inset.margin - 0.02, 0, 0.2) }, 'margin')}
      />
      <Tool
        icon="arrow-expand-all"
        label="Further from the edge"
        words="Further"
        onPress={() => set({ margin: clamp(inset.margin + 0.02, 0, 0.2) }, 'margin')}
      />
      <Tool
        icon="crop-landscape"
        label="Wider inset"
        words="Wider"
        onPress={() => set({ aspect: clamp(inset.aspect * 1.125, 0.4, 2.5) }, 'aspect')}
      />
      <Tool
        icon="crop-portrait"
        label="Taller inset"
        words="Taller"
        onPress={() => set({ aspect: clamp(inset.aspect / 1.125, 0.4, 2.5) }, 'aspect')}
      />
    </ScrollView>
  );
}

function BandDetails({ layout, setLayout }: DetailProps) {
  const { banded } = layout;
  const place = (by: number) =>
    setLayout({ banded: { ...banded, place: clamp(banded.place + by, 0, 1) } }, 'band');
  return (
    <View style={styles.tools}>
      <Tool icon="arrow-up" label="Picture up" words="Up" onPress={() => place(-0.05)} />
      <Tool icon="arrow-down" label="Picture down" words="Down" onPress={() => place(0.05)} />
      {BAND_COLOURS.map((colour, i) => (
        <Pressable
          key={colour}
          role="radio"
          aria-label={`Band colour ${i + 1}`}
          aria-checked={banded.colour === colour}
          onPress={() => setLayout({ banded: { ...banded, colour } })}
          style={[styles.colour, { backgroundColor: colour }, banded.colour === colour && styles.colourOn]}
        />
      ))}
    </View>
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
  tools: { flexDirection: 'row', gap: space.s, alignItems: 'center' },
  colour: { width: TARGET, height: TARGET, borderRadius: 6, borderWidth: 1, borderColor: colours.edge },
  colourOn: { borderWidth: 4, borderColor: colours.woad },
});
