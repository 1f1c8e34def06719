import { createElement } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { colours, fonts, sizes, TARGET } from '../theme/tokens';
import { FLAG_HEIGHT, STRIP_HEIGHT } from './strip-height';

interface Props {
  edge: 'in' | 'out';
  /** Where the edge is on the strip, in pixels. */
  left: number;
  frame: number;
  frames: number;
  onBegin: () => void;
  /** Pixels from where the drag began. */
  onMove: (pixels: number, done: boolean) => void;
  onStep: (frames: number) => void;
}

/** Width of the line at an end of what is kept, in pixels. */
const LINE = 4;

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 };

/** Handle at one end of a range: a tab that is dragged, or moved by arrow keys. */
export function CutHandle({ edge, left, frame, frames, onBegin, onMove, onStep }: Props) {
  const drag = Gesture.Pan()
    .runOnJS(true)
    .minDistance(1)
    .onBegin(onBegin)
    .onUpdate(({ translationX }) => onMove(translationX, false))
    .onEnd(({ translationX }) => onMove(translationX, true));
  // One flag hangs below the strip and the other stands above, so that ends close together can both be caught.
  const offset = edge === 'in' ? left - LINE : left - TARGET + LINE;
  const slider = createElement(
    'div',
    {
      role: 'slider',
      tabIndex: 0,
      'aria-label': edge === 'in' ? 'In point' : 'Out point',
      'aria-valuemin': 0,
      'aria-valuemax': frames - 1,
      'aria-valuenow': frame,
      onKeyDown: (event: { key: string; preventDefault: () => void; stopPropagation: () => void }) => {
        const by = STEPS[event.key];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        onStep(by);
      },
      style: { width: '100%', height: '100%', touchAction: 'none', cursor: 'ew-resize' },
    },
    <>
      <View style={[styles.line, edge === 'in' ? styles.inLine : styles.outLine]} />
      <View style={[styles.flag, edge === 'in' ? styles.inFlag : styles.outFlag]}>
        <Text style={styles.word}>{edge === 'in' ? 'from' : 'to'}</Text>
      </View>
    </>,
  );
  return (
    <GestureDetector gesture={drag}>
      <View style={[styles.target, edge === 'in' ? styles.inTarget : styles.outTarget, { left: offset }]}>
        {slider}
      </View>
    </GestureDetector>
  );
}

const styles = StyleSheet.create({
  target: { position: 'absolute', height: STRIP_HEIGHT + FLAG_HEIGHT, width: TARGET },
  inTarget: { top: FLAG_HEIGHT },
  outTarget: { top: 0 },
  line: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    width: LINE,
    backgroundColor: colours.woad,
    pointerEvents: 'none',
  },
  inLine: { left: 0 },
  outLine: { right: 0 },
  flag: {
    position: 'absolute',
    width: TARGET,
    height: FLAG_HEIGHT - 4,
    backgroundColor: colours.woad,
    alignItems: 'center',
    justifyContent: 'center',
    pointerEvents: 'none',
  },
  inFlag: { left: 0, bottom: 0, borderBottomRightRadius: 14 },
  outFlag: { right: 0, top: 0, borderTopLeftRadius: 14 },
  word: { fontFamily: fonts.strong, fontSize: sizes.small, color: colours.onDye },
});
