import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import type { Canvas } from '@core/layout/canvas';
import { setCanvas } from '@state/job';
import { canvasView } from '@state/player';
import { useClip, useJob } from '../job/job-context';
import { PictureView } from '../parts/picture-view';
import { Soft, Strong } from '../parts/words';
import { canvasMark } from '../theme/dyes';
import { card, colours, space } from '../theme/tokens';
import { useCanvasLabel } from '../job/use-target';

/** Most columns of a card's picture, in pixels. */
const MAX_ACROSS = 160;

/** The other canvases of the clip, live; pressing one works on it. */
export function CanvasCards({
  current,
  detached,
  rows,
  wrap,
}: {
  current: string;
  detached: readonly string[];
  /** Most rows of a card's picture, in pixels. */
  rows: number;
  /** Shown in several lines instead of one to swipe. */
  wrap: boolean;
}) {
  const { id } = useJob();
  const { canvases } = useClip();
  if (canvases.length < 2) return null;
  const cards = canvases
    .filter((canvas) => canvas.id !== current)
    .map((canvas) => (
      <Card
        key={canvas.id}
        canvas={canvas}
        alone={detached.includes(canvas.id)}
        rows={rows}
        onPress={() => setCanvas(id, canvas.id)}
      />
    ));
  if (wrap) return <View style={[styles.row, styles.wrap]}>{cards}</View>;
  return (
    <ScrollView
      horizontal
      aria-label="Other canvases"
      showsHorizontalScrollIndicator={false}
      contentContainerStyle={styles.row}
    >
      {cards}
    </ScrollView>
  );
}

interface CardProps {
  canvas: Canvas;
  alone: boolean;
  rows: number;
  onPress: () => void;
}

function Card({ canvas, alone, rows, onPress }: CardProps) {
  const { dye } = canvasMark(canvas.dye);
  const label = useCanvasLabel()(canvas);
  const aspect = canvas.width / canvas.height;
  const height = Math.min(rows, MAX_ACROSS / aspect);
  return (
    <Pressable
      role="button"
      aria-label={`Work on ${label}${alone ? ' by itself' : ''}`}
      onPress={onPress}
      style={[styles.card, { borderColor: dye }]}
    >
      <PictureView view={canvasView(canvas.id)} label={label} width={height * aspect} height={height} />
      <View>
        <Strong style={styles.name}>{alone ? `${label} ` : label}</Strong>
        {alone && <Soft style={styles.alone}>by itself</Soft>}
      </View>
    </Pressable>
  );
}

/** The clip's canvases in a row; the one that is worked on stands out. */
export function CanvasRow() {
  const { id } = useJob();
  const { canvases, canvas: current } = useClip();
  const labelOf = useCanvasLabel();
  if (canvases.length < 2) return null;
  return (
    <ScrollView
      horizontal
      role="radiogroup"
      aria-label="Canvas"
      showsHorizontalScrollIndicator={false}
      style={styles.strip}
      contentContainerStyle={styles.row}
    >
      {canvases.map((canvas) => {
        const on = canvas.id === current;
        return (
          <Pressable
            key={canvas.id}
            role="radio"
            aria-label={labelOf(canvas)}
            aria-checked={on}
            onPress={() => setCanvas(id, canvas.id)}
            style={[styles.chip, { borderLeftColor: canvasMark(canvas.dye).dye }, on && styles.on]}
          >
            <Strong style={styles.name}>{labelOf(canvas)}</Strong>
            <Soft>
              {canvas.width}×{canvas.height}
            </Soft>
          </Pressable>
        );
      })}
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  strip: { flexGrow: 0 },
  row: { gap: space.s, alignItems: 'flex-start' },
  wrap: { flexDirection: 'row', flexWrap: 'wrap', flex: 1 },
  card: { padding: space.xs, gap: space.xs, ...card, borderWidth: 2, alignItems: 'center' },
  chip: {
    minHeight: 44,
    paddingHorizontal: space.m,
    justifyContent: 'center',
    ...card,
    borderLeftWidth: 6,
  },
  on: { backgroundColor: colours.woadWash, borderColor: colours.woad },
  name: { fontSize: 13 },
  alone: { color: colours.weld },
});
