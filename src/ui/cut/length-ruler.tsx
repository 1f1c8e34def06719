import { useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import type { Range } from '@core/cut/cut';
import type { Placement } from '@core/outlets/rule-sheet';
import { framesWithin, type FrameRate, secondsOf } from '@core/time/frame-rate';
import { lengthLabel } from '@core/time/timecode';
import { Soft, Strong } from '../parts/words';
import { colours, space } from '../theme/tokens';

interface Props {
  range: Range;
  masterFrames: number;
  rate: FrameRate;
  placement: Placement;
}

/** A ruler laid from the in point, on the filmstrip's scale: the clip's length, the best range and the limit. */
export function LengthRuler({ range, masterFrames, rate, placement }: Props) {
  const [width, setWidth] = useState(0);
  const place = (seconds: number) => ((range.in + (seconds * rate.num) / rate.den) / masterFrames) * width;
  const length = range.out - range.in;
  const allowed = framesWithin(placement.maxSeconds, rate);
  const over = length - allowed;
  const limit = place(placement.maxSeconds);
  const best = placement.bestSeconds;
  const inBest =
    best !== undefined && secondsOf(length, rate) >= best.from && secondsOf(length, rate) <= best.to;
  return (
    <View style={styles.ruler}>
      <View
        style={styles.scale}
        onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
      >
        <View style={styles.base} />
        {best && (
          <View
            style={[
              styles.best,
              {
                left: place(best.from),
                width: Math.max(0, Math.min(place(best.to), width) - place(best.from)),
              },
            ]}
          />
        )}
        <View
          style={[
            styles.length,
            over > 0 && styles.over,
            { left: place(0), width: place(secondsOf(length, rate)) - place(0) },
          ]}
        />
        {limit <= width && <View style={[styles.limit, { left: limit - 1.5 }]} />}
      </View>
      <View style={styles.words}>
        <Strong aria-label="Clip length">{lengthLabel(secondsOf(length, rate))}</Strong>
        <Soft style={styles.grow}>
          {length} frames
          {over > 0 ? `, ${over} over` : ''}
        </Soft>
        <Soft style={over > 0 && styles.stopWords}>
          {best ? `best ${best.from}–${best.to} s${inBest ? ': in it' : ''}, ` : ''}
          limit {placement.maxSeconds} s{limit > width ? ', past the end' : ''}
        </Soft>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  ruler: { gap: space.xs },
  scale: { height: 22 },
  base: { position: 'absolute', left: 0, right: 0, top: 10, height: 2, backgroundColor: colours.edge },
  best: {
    position: 'absolute',
    top: 3,
    height: 16,
    backgroundColor: '#BFD9CF',
    borderWidth: 1,
    borderColor: colours.verdigris,
  },
  length: { position: 'absolute', top: 8, height: 6, backgroundColor: colours.woad },
  over: { backgroundColor: colours.madder },
  limit: { position: 'absolute', top: 0, height: 22, width: 3, backgroundColor: colours.madder },
  words: { flexDirection: 'row', alignItems: 'baseline', gap: space.s, flexWrap: 'wrap' },
  grow: { flexGrow: 1 },
  stopWords: { color: colours.madder },
});
