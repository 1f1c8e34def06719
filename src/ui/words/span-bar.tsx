import { createElement, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import type { Stretch } from '@core/words/spans';
import { Soft } from '../parts/words';
import { colours, TARGET } from '../theme/tokens';
import { LANE, type StripScale } from './clip-strip';

type Grip = 'from' | 'to' | 'both';

interface Props {
  label: string;
  at: Stretch;
  scale: StripScale;
  /** Frames that a time may have. */
  frames: number;
  /** Shown while it is dragged, kept when done. */
  onTime: (stretch: Stretch, done: boolean) => void;
}

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 };

/** When the words that are worked on are seen: a bar that is moved, and whose ends are moved, by hand or by arrows. */
export function SpanBar({ label, at, scale, frames, onTime }: Props) {
  const begun = useRef(at);
  const moveStretch = (by: number, grip: Grip, from: Stretch): Stretch => {
    if (grip === 'both') {
      const first = Math.min(Math.max(0, from.from + by), frames - (from.to - from.from));
      return { from: first, to: first + from.to - from.from };
    }
    if (grip === 'from') return { from: Math.min(Math.max(0, from.from + by), from.to - 1), to: from.to };
    return { from: from.from, to: Math.max(Math.min(frames, from.to + by), from.from + 1) };
  };
  const drag = (grip: Grip) =>
    Gesture.Pan()
      .runOnJS(true)
      .minDistance(2)
      .onStart(() => {
        begun.current = at;
      })
      .onUpdate(({ translationX }) =>
        onTime(moveStretch(scale.framesIn(translationX), grip, begun.current), false),
      )
      .onEnd(({ translationX }) =>
        onTime(moveStretch(scale.framesIn(translationX), grip, begun.current), true),
      );
  const [left, right] = [scale.place(at.from), scale.place(at.to)];
  const end = (grip: 'from' | 'to') =>
    createElement('div', {
      role: 'slider',
      tabIndex: 0,
      'aria-label': grip === 'from' ? `${label}: first frame` : `${label}: last frame`,
      'aria-valuemin': 0,
      'aria-valuemax': frames - 1,
      'aria-valuenow': grip === 'from' ? at.from : at.to - 1,
      onKeyDown: (event: { key: string; preventDefault: () => void; stopPropagation: () => void }) => {
        const by = STEPS[event.key];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        onTime(moveStretch(by, grip, at), true);
      },
      style: { width: '100%', height: '100%', touchAction: 'none', cursor: 'ew-resize' },
    });
  return (
    <>
      <GestureDetector gesture={drag('both')}>
        <View style={[styles.bar, { left, width: Math.max(2, right - left) }]}>
          <Soft numberOfLines={1} style={styles.words}>
            {label}
          </Soft>
        </View>
      </GestureDetector>
      <GestureDetector gesture={drag('from')}>
        <View style={[styles.end, { left: left - TARGET + 6 }]}>
          {end('from')}
          <View style={[styles.line, styles.first]} />
        </View>
      </GestureDetector>
      <GestureDetector gesture={drag('to')}>
        <View style={[styles.end, { left: right - 6 }]}>
          {end('to')}
          <View style={[styles.line, styles.last]} />
        </View>
      </GestureDetector>
    </>
  );
}

const styles = StyleSheet.create({
  bar: {
    position: 'absolute',
    top: 6,
    height: LANE - 12,
    backgroundColor: colours.woadWash,
    borderWidth: 1,
    borderColor: colours.woad,
    justifyContent: 'center',
    overflow: 'hidden',
    paddingHorizontal: 8,
    cursor: 'grab' as 'pointer',
  },
  words: { color: colours.ink, userSelect: 'none' },
  end: { position: 'absolute', top: 0, width: TARGET, height: LANE },
  line: {
    position: 'absolute',
    top: 2,
    bottom: 2,
    width: 6,
    borderRadius: 3,
    backgroundColor: colours.woad,
    pointerEvents: 'none',
  },
  first: { right: 0 },
  last: { left: 0 },
});
