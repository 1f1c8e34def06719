import { useMemo, useRef, useState } from 'react';
import { Image, type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import type { Range } from '@core/cut/cut';
import type { Job } from '@core/job/job';
import { clamp } from '@core/picture/size';
import { useStills } from '@state/stills';
import { colours } from '../theme/tokens';
import { CutHandle } from './cut-handle';
import { FLAG_HEIGHT, STRIP_HEIGHT } from './strip-height';

/** Width of one picture of the strip, in pixels: the middle of the frame is shown. */
const TILE = 56;

interface Props {
  job: Job;
  range: Range;
  frame: number;
  onScrub: (frame: number) => void;
  /** While an end is dragged, and when it is let go (`done`). Ends are frames: the first kept, the last kept. */
  onDrag: (edge: 'in' | 'out', frame: number, done: boolean) => void;
  /** An end was moved by keys. */
  onStep: (edge: 'in' | 'out', frame: number) => void;
}

/** The master as a strip of pictures, with what is kept of it between two handles, and the playhead. */
export function Filmstrip({ job, range, frame, onScrub, onDrag, onStep }: Props) {
  const [width, setWidth] = useState(0);
  const { frames } = job.master;
  const tiles = useTiles(job, width);
  const stills = useStills(job.master, tiles, STRIP_HEIGHT);
  const place = (at: number) => (at / frames) * width;
  const frameAtX = (x: number) => clamp(Math.floor((x / Math.max(1, width)) * frames), 0, frames - 1);
  const scrub = Gesture.Exclusive(
    Gesture.Pan()
      .runOnJS(true)
      .minDistance(2)
      .onUpdate(({ x }) => onScrub(frameAtX(x))),
    Gesture.Tap()
      .runOnJS(true)
      .onEnd(({ x }) => onScrub(frameAtX(x))),
  );
  const begun = useRef(0);
  const handle = (edge: 'in' | 'out', at: number) => (
    <CutHandle
      edge={edge}
      left={place(edge === 'in' ? at : at + 1)}
      frame={at}
      frames={frames}
      onBegin={() => (begun.current = at)}
      onMove={(pixels, done) =>
        onDrag(edge, clamp(begun.current + Math.round((pixels / width) * frames), 0, frames - 1), done)
      }
      onStep={(by) => onStep(edge, clamp(at + by, 0, frames - 1))}
    />
  );
  return (
    <View
      style={styles.outer}
      onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}
    >
      <GestureDetector gesture={scrub}>
        <View style={styles.strip} role="img" aria-label="Filmstrip of the master">
          {tiles.map((at, i) => (
            <View key={at} style={[styles.tile, { left: i * TILE, width: TILE }]}>
              {stills[at] !== undefined && <Image source={{ uri: stills[at] }} style={styles.image} />}
            </View>
          ))}
          <View style={[styles.papered, { left: 0, width: place(range.in) }]} />
          <View style={[styles.papered, { left: place(range.out), right: 0 }]} />
          <View style={[styles.playhead, { left: place(frame + 0.5) - 1.5 }]} />
        </View>
      </GestureDetector>
      {width > 0 && handle('in', range.in)}
      {width > 0 && handle('out', range.out - 1)}
    </View>
  );
}

/** The frames of the strip's tiles: as many as fit, each from its tile's middle. */
function useTiles(job: Job, width: number): number[] {
  const { frames } = job.master;
  return useMemo(() => {
    const middle = (i: number) => Math.min(frames - 1, Math.floor((((i + 0.5) * TILE) / width) * frames));
    return [...new Set(Array.from({ length: Math.ceil(width / TILE) }, (_, i) => middle(i)))];
  }, [frames, width]);
}

const styles = StyleSheet.create({
  outer: { paddingVertical: FLAG_HEIGHT },
  strip: { height: STRIP_HEIGHT, overflow: 'hidden', backgroundColor: colours.hairline, borderRadius: 3 },
  tile: { position: 'absolute', top: 0, height: STRIP_HEIGHT },
  image: { width: '100%', height: '100%' },
  papered: { position: 'absolute', top: 0, bottom: 0, backgroundColor: colours.papered },
  playhead: { position: 'absolute', top: 0, bottom: 0, width: 3, backgroundColor: colours.ink },
});
