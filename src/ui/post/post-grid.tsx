import { useState } from 'react';
import { Pressable, StyleSheet, Text, View } from 'react-native';
import { Button } from 'react-native-paper';
import { type Clip, clipName } from '@core/job/clip';
import type { Canvas } from '@core/layout/canvas';
import { findPlacement } from '@core/outlets/outlets';
import { setCanvas, setClip } from '@state/job';
import { useJob } from '../job/job-context';
import { useCanvasLabel, useRuleSheets } from '../job/use-target';
import { Mark } from '../parts/mark';
import { Soft, Strong } from '../parts/words';
import { canvasMark } from '../theme/dyes';
import { card, colours, fonts, sizes, space, TARGET } from '../theme/tokens';
import { type CellStand, usePostStand } from './use-post-stand';

/** A job with more canvases than this shows one clip at first: each row is judged. */
const MAX_ROWS = 12;

/** All clips' canvases down, the outlets across: how the post of each stands. A press works on that one. */
export function PostGrid() {
  const { clips, clip: current } = useJob().edit;
  const [all, setAll] = useState(false);
  const isLong = clips.reduce((rows, { canvases }) => rows + canvases.length, 0) > MAX_ROWS;
  const shown = all || !isLong ? clips : clips.filter(({ id }) => id === current);
  const sheets = useRuleSheets();
  return (
    <View role="table" aria-label="Posts by canvas and outlet" style={styles.grid}>
      <View role="row" style={styles.row}>
        <View role="columnheader" aria-label="Canvas" style={styles.first} />
        {sheets.map(({ outlet, name }) => (
          <View key={outlet} role="columnheader" style={styles.column}>
            <Text style={styles.outlet} numberOfLines={1}>
              {name}
            </Text>
          </View>
        ))}
      </View>
      {shown.map((clip) =>
        clip.canvases.map((canvas) => (
          <Row
            key={`${clip.id} ${canvas.id}`}
            clip={clip}
            canvas={canvas}
            name={clips.length > 1 ? clipName(clip) : ''}
          />
        )),
      )}
      {isLong && !all && <Button onPress={() => setAll(true)}>{`Show all ${clips.length} clips`}</Button>}
    </View>
  );
}

function Row({ clip, canvas, name: clipped }: { clip: Clip; canvas: Canvas; name: string }) {
  const job = useJob();
  const isCurrent = job.edit.clip === clip.id && clip.canvas === canvas.id;
  const labelOf = useCanvasLabel();
  const sheets = useRuleSheets();
  const stand = usePostStand(clip.id, canvas.id);
  const label = [clipped, labelOf(canvas)].filter(Boolean).join(', ');
  const work = () => {
    setClip(job.id, clip.id);
    setCanvas(job.id, canvas.id);
  };
  const own = findPlacement(sheets, canvas.placement ?? '')?.sheet.outlet;
  return (
    <View role="row" style={[styles.row, isCurrent && styles.current]}>
      <View role="rowheader" style={[styles.first, { borderLeftColor: canvasMark(canvas.dye).dye }]}>
        <Strong style={styles.name}>{label}</Strong>
      </View>
      {sheets.map(({ outlet, name }) => (
        <View key={outlet} role="cell" style={styles.column}>
          {outlet === own ? (
            <Pressable
              role="button"
              aria-label={`${label} to ${name}: ${stand.words}`}
              onPress={work}
              style={styles.cell}
            >
              <CellMark stand={stand} />
            </Pressable>
          ) : (
            <Soft aria-label={`${label} is not for ${name}`}>–</Soft>
          )}
        </View>
      ))}
    </View>
  );
}

function CellMark({ stand: { standing, words } }: { stand: CellStand }) {
  return (
    <>
      <Mark standing={standing} />
      <Text style={styles.words} numberOfLines={2}>
        {words}
      </Text>
    </>
  );
}

const styles = StyleSheet.create({
  grid: { ...card, overflow: 'hidden' },
  row: { flexDirection: 'row', alignItems: 'stretch', borderBottomWidth: 1, borderColor: colours.hairline },
  current: { backgroundColor: colours.woadWash },
  first: {
    flex: 1.2,
    justifyContent: 'center',
    borderLeftWidth: 6,
    borderLeftColor: 'transparent',
    padding: space.xs,
  },
  column: { flex: 1, minHeight: TARGET, alignItems: 'center', justifyContent: 'center' },
  outlet: { fontFamily: fonts.strong, fontSize: 10.5, color: colours.ink },
  cell: {
    alignSelf: 'stretch',
    minHeight: TARGET + 8,
    alignItems: 'center',
    justifyContent: 'center',
    padding: 2,
  },
  name: { fontSize: sizes.small },
  words: { fontFamily: fonts.text, fontSize: 11, color: colours.ink, textAlign: 'center' },
});
