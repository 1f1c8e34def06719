import { useState } from 'react';
import { type LayoutChangeEvent, Pressable, StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { rangeLength } from '@core/cut/cut';
import { findSource } from '@core/job/job';
import { clamp } from '@core/picture/size';
import { toSeconds } from '@core/time/frame-rate';
import { lengthLabel } from '@core/time/timecode';
import { usePlayer } from '@state/player';
import { useJob } from '../job/job-context';
import { Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import type { CutTools } from './use-cut';

/** The cut in playing order, one block a range; a block is dragged to another place. One range needs no strip. */
export function RangeStrip({ tools }: { tools: CutTools }) {
  const job = useJob();
  const playing = usePlayer((state) => state.range);
  const [width, setWidth] = useState(0);
  const [drag, setDrag] = useState<{ index: number; by: number } | null>(null);
  const { cut, index } = tools;
  if (cut.length < 2) return null;
  const seconds = cut.map((range) => toSeconds(rangeLength(range), findSource(job, range.master).rate));
  const total = seconds.reduce((sum, second) => sum + second, 0);
  const least = Math.min(TARGET, width / cut.length);
  const widths = seconds.map((second) => least + (second / total) * Math.max(0, width - least * cut.length));
  const lefts = widths.map((_, i) => widths.slice(0, i).reduce((sum, width) => sum + width, 0));
  const target = (from: number, by: number) => {
    const middle = (lefts[from] ?? 0) + (widths[from] ?? 0) / 2 + by;
    const index = lefts.findIndex((left, i) => middle < left + (widths[i] ?? 0));
    return clamp(index < 0 ? cut.length - 1 : index, 0, cut.length - 1);
  };
  return (
    <View
      role="list"
      aria-label="Ranges in playing order"
      style={styles.strip}
      onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
    >
      {width > 0 &&
        cut.map((range, i) => {
          const pan = Gesture.Pan()
            .runOnJS(true)
            .minDistance(6)
            .onUpdate(({ translationX }) => setDrag({ index: i, by: translationX }))
            .onEnd(({ translationX }) => {
              setDrag(null);
              tools.select(i);
              const to = target(i, translationX);
              if (to !== i) tools.moveFrom(i, to);
            });
          const dragged = drag?.index === i;
          return (
            <GestureDetector key={`${range.master}-${range.in}-${i}`} gesture={pan}>
              <View
                role="listitem"
                style={[
                  styles.place,
                  { left: (lefts[i] ?? 0) + (dragged ? drag.by : 0), width: (widths[i] ?? 0) - 2 },
                  dragged && styles.lifted,
                ]}
              >
                <Pressable
                  role="button"
                  aria-label={`Range ${i + 1}, ${lengthLabel(seconds[i] ?? 0)}`}
                  aria-pressed={i === index}
                  onPress={() => tools.select(i)}
                  style={[styles.block, i === index && styles.on, playing === i && styles.playing]}
                >
                  <Soft numberOfLines={1} style={styles.words}>
                    {i + 1}
                  </Soft>
                </Pressable>
              </View>
            </GestureDetector>
          );
        })}
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { height: TARGET },
  place: { position: 'absolute', top: 0, height: TARGET },
  lifted: { zIndex: 2, opacity: 0.85 },
  block: {
    flex: 1,
    borderWidth: 1,
    borderColor: colours.edge,
    borderRadius: 3,
    backgroundColor: colours.sheet,
    alignItems: 'center',
    justifyContent: 'center',
    paddingHorizontal: space.xs,
    userSelect: 'none',
  },
  on: { borderColor: colours.woad, borderWidth: 2, backgroundColor: colours.woadWash },
  playing: { borderBottomWidth: 5 },
  words: { color: colours.ink },
});
