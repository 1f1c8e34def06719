import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import type { CanvasRect } from '@core/picture/size';
import { type BoxGrip, dragBox, type SnapLines } from '@core/words/snap-box';
import type { TextBlock } from '@core/words/text-block';
import { useWordsBench } from '@state/words';
import { colours, TARGET } from '../theme/tokens';
import type { Guides } from './block-bench';
import { useHeldKey } from './use-held-key';
import type { WordsTools } from './use-words';

/** Boxes snap within this many pixels of the screen. */
const SNAP = 7;
/** Side of the square that is seen of a handle. */
const HANDLE = 14;
const CORNERS: readonly Exclude<BoxGrip, 'move'>[] = ['top-left', 'top-right', 'bottom-left', 'bottom-right'];

interface Props {
  tools: WordsTools;
  block: TextBlock;
  /** Pixels of the screen for each of the canvas. */
  scale: number;
  lines: SnapLines;
  /** Told the lines that a drag snaps to, and null when it ends. */
  onGuides: (guides: Guides | null) => void;
}

/** The box of the block that is worked on; dragging it with Alt held leaves a copy where it was. */
export function BlockHandles({ tools, block, scale, lines, onGuides }: Props) {
  const rect = tools.rectOf(block);
  const from = useRef<CanvasRect>(rect);
  const copies = useRef(false);
  const alt = useHeldKey('Alt');
  const snaps = useWordsBench((state) => state.snaps);
  const createDrag = (grip: BoxGrip) => {
    const drag = (x: number, y: number, done: boolean) => {
      const by = { x: x / scale, y: y / scale };
      const snapped = dragBox(from.current, grip, by, lines, snaps ? SNAP / scale : 0);
      onGuides(done ? null : snapped);
      if (done && copies.current) {
        tools.moveTo(from.current, true);
        return tools.copyTo(block, snapped.box);
      }
      tools.moveTo(snapped.box, done);
    };
    return Gesture.Pan()
      .runOnJS(true)
      .minDistance(2)
      .maxPointers(1)
      .onStart(() => {
        from.current = tools.rectOf(block);
        copies.current = grip === 'move' && alt.current === true;
      })
      .onUpdate(({ translationX, translationY }) => drag(translationX, translationY, false))
      .onEnd(({ translationX, translationY }) => drag(translationX, translationY, true));
  };
  const [left, top] = [rect.x * scale, rect.y * scale];
  const [width, height] = [rect.width * scale, rect.height * scale];
  return (
    <>
      <GestureDetector gesture={createDrag('move')}>
        <View
          role="group"
          aria-label={`The block “${block.text.replaceAll('\n', ' ')}”, to be moved`}
          style={[styles.box, { left, top, width, height }]}
        />
      </GestureDetector>
      {CORNERS.map((corner) => (
        <GestureDetector key={corner} gesture={createDrag(corner)}>
          <View
            aria-hidden
            style={[
              styles.touch,
              {
                left: (corner.endsWith('left') ? left : left + width) - TARGET / 2,
                top: (corner.startsWith('top') ? top : top + height) - TARGET / 2,
              },
            ]}
          >
            <View style={styles.handle} />
          </View>
        </GestureDetector>
      ))}
    </>
  );
}

const styles = StyleSheet.create({
  box: {
    position: 'absolute',
    borderWidth: 2,
    borderColor: colours.woad,
    outlineWidth: 1,
    outlineStyle: 'solid',
    outlineColor: colours.chalk,
    cursor: 'grab' as 'pointer',
  },
  touch: {
    position: 'absolute',
    width: TARGET,
    height: TARGET,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'nwse-resize' as 'pointer',
  },
  handle: {
    width: HANDLE,
    height: HANDLE,
    backgroundColor: colours.chalk,
    borderWidth: 2,
    borderColor: colours.woad,
  },
});
