import { useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { masterLengths } from '@core/check/check';
import { type Cut, cutFrames } from '@core/cut/cut';
import { cardFrames } from '@core/words/clip-text';
import type { Canvas } from '@core/layout/canvas';
import { findTarget } from '@core/outlets/outlets';
import type { Sheets } from '@core/outlets/rule-sheet';
import { countFramesWithin, toSeconds } from '@core/time/frame-rate';
import { lengthLabel } from '@core/time/timecode';
import { useClip, useJob } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';
import { canvasMark } from '../theme/dyes';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

/** The ruler reaches this much past the longest of the clip and its limits. */
const ROOM = 1.06;

/** The clip's length on a ruler, with the limit and the best range of every placement that it is made for. */
export function LengthRuler({ cut }: { cut: Cut }) {
  const job = useJob();
  const clip = useClip();
  const sheets = useRuleSheets();
  const [width, setWidth] = useState(0);
  const lengths = masterLengths(job);
  const lasts = ({ rate }: Canvas) => cutFrames(cut, lengths, rate) + cardFrames(clip.text?.card, rate);
  const rows = clip.canvases.map((canvas) => toRow(sheets, canvas, lasts(canvas)));
  const [first] = rows;
  if (!first) return null;
  const longest = Math.max(...rows.flatMap((row) => [row.seconds, Math.min(row.limit, row.seconds * 4)]));
  const scale = width / (longest * ROOM);
  const place = (seconds: number) => Math.min(seconds * scale, width);
  return (
    <View style={styles.ruler}>
      <View
        style={[styles.scale, { height: 10 + rows.length * 12 }]}
        onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
      >
        {rows.map((row, i) => (
          <View key={row.canvas.id} style={[styles.line, { top: 6 + i * 12 }]}>
            {row.best && (
              <View
                style={[
                  styles.best,
                  {
                    left: place(row.best.from),
                    width: Math.max(0, place(row.best.to) - place(row.best.from)),
                  },
                ]}
              />
            )}
            <View style={[styles.length, row.over > 0 && styles.over, { width: place(row.seconds) }]} />
            {row.limit * scale <= width && (
              <View style={[styles.limit, { left: place(row.limit) - 1.5, borderColor: row.mark.dye }]} />
            )}
          </View>
        ))}
      </View>
      {rows.map((row, i) => (
        <View key={row.canvas.id} style={styles.words}>
          {i === 0 && <Strong aria-label="Clip length">{lengthLabel(row.seconds)}</Strong>}
          <Soft style={styles.grow}>
            {row.frames} frames{row.over > 0 ? `, ${row.over} over` : ''}
          </Soft>
          <Soft style={[styles.right, row.over > 0 && styles.stopWords]}>{limitWords(row)}</Soft>
        </View>
      ))}
    </View>
  );
}

type Row = ReturnType<typeof toRow>;

function toRow(sheets: Sheets, canvas: Canvas, frames: number) {
  const { placement, label } = findTarget(sheets, canvas);
  const { most, best } = placement.length;
  const seconds = toSeconds(frames, canvas.rate);
  return {
    canvas,
    label,
    frames,
    seconds,
    limit: most,
    best,
    over: Math.max(0, frames - countFramesWithin(most, canvas.rate)),
    mark: canvasMark(canvas.dye),
  };
}

function limitWords({ best, seconds, limit, label }: Row): string {
  const inBest = best !== null && seconds >= best.from && seconds <= best.to;
  return `${label}: ${best ? `best ${best.from}–${best.to} s${inBest ? ' (in it)' : ''}, ` : ''}limit ${limit} s`;
}

const styles = StyleSheet.create({
  ruler: { gap: space.xs },
  scale: { borderBottomWidth: 1, borderColor: colours.edge },
  line: { position: 'absolute', left: 0, right: 0, height: 10 },
  best: { position: 'absolute', top: 0, height: 10, backgroundColor: colours.verdigris, opacity: 0.28 },
  length: { position: 'absolute', left: 0, top: 3, height: 5, backgroundColor: colours.woad },
  over: { backgroundColor: colours.madder },
  limit: { position: 'absolute', top: -2, height: 14, borderLeftWidth: 3 },
  words: { flexDirection: 'row', gap: space.s, alignItems: 'baseline', flexWrap: 'wrap' },
  grow: { flexGrow: 1 },
  right: { textAlign: 'right' },
  stopWords: { color: colours.madder },
});
