import { createElement, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { STRIP } from '@core/pass/pass';
import { clamp } from '@core/picture/size';
import { rateValue } from '@core/time/frame-rate';
import { formatTimecode } from '@core/time/timecode';
import { player, usePlayer } from '@state/player';
import { colours } from '../theme/tokens';
import { StripPicture, useStripPictures } from './strip-picture';
import type { CutTools } from './use-cut';
import { WaveStrip } from './wave-strip';

/** Seconds of the master that it shows at least, and the most pixels that a frame takes. */
const SHOWN = 3;
const MAX_PIXELS = 6;
/** Rows of its pictures, and their least width, in pixels. */
const HEIGHT = 44;
const MIN_TILE = 44;

const STEPS: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageDown: -10, PageUp: 10 };

/** Enlarged strip around the playhead: it is drawn past the playhead, frame by frame. */
export function CloseStrip({ tools, width }: { tools: CutTools; width: number }) {
  const { source, range, shots } = tools;
  const frame = usePlayer((state) => state.frame);
  const playing = usePlayer((state) => state.playing);
  const { frames } = source;
  const across = Math.max(SHOWN * rateValue(source.rate), width / MAX_PIXELS);
  const pixels = width / across;
  const every = STRIP.every[0] * Math.max(1, Math.ceil(MIN_TILE / (STRIP.every[0] * pixels)));
  const tiles = useTiles(frame, across, every, frames);
  const pictures = useStripPictures(source, tiles, every, !playing);
  const [begun, setBegun] = useState(frame);
  const go = (to: number) => player.showFrame(clamp(Math.round(to), 0, frames - 1), source.id);
  const draw = Gesture.Exclusive(
    Gesture.Pan()
      .runOnJS(true)
      .minDistance(2)
      .onBegin(() => setBegun(usePlayer.getState().frame))
      .onUpdate(({ translationX }) => go(begun - translationX / pixels)),
    Gesture.Tap()
      .runOnJS(true)
      .onEnd(({ x }) => go(frame + Math.floor((x - width / 2) / pixels + 0.5))),
  );
  /** Where a frame begins, in pixels: the frame of the playhead stands in the middle. */
  const place = (at: number) => width / 2 + (at - frame - 0.5) * pixels;
  const [first, last] = [frame + 0.5 - across / 2, frame + 0.5 + across / 2];
  const near = (at: number) => at > first && at < last;
  const ends = range.master === source.id ? [range.in, range.out] : [];
  const strip = createElement(
    'div',
    {
      role: 'slider',
      tabIndex: 0,
      'aria-label': 'Frames around the playhead',
      'aria-valuemin': 0,
      'aria-valuemax': frames - 1,
      'aria-valuenow': frame,
      'aria-valuetext': formatTimecode(frame, source.rate),
      onKeyDown: (event: { key: string; preventDefault: () => void; stopPropagation: () => void }) => {
        const by = STEPS[event.key];
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        go(frame + by);
      },
      style: { touchAction: 'pan-y', cursor: 'grab', userSelect: 'none' },
    },
    <>
      <View style={styles.pictures}>
        {tiles.map((at) => (
          <View key={at} style={[styles.tile, { left: place(at - every / 2), width: every * pixels }]}>
            <StripPicture picture={pictures[at]} width={every * pixels} height={HEIGHT} />
          </View>
        ))}
        {shots
          .slice(1)
          .map(
            (shot) =>
              near(shot.in) && <View key={shot.id} style={[styles.shot, { left: place(shot.in) - 1 }]} />,
          )}
        {place(0) > 0 && <View style={[styles.beyond, { left: 0, width: place(0) }]} />}
        {place(frames) < width && <View style={[styles.beyond, { left: place(frames), right: 0 }]} />}
        {ends.map((end, i) => near(end) && <View key={i} style={[styles.end, { left: place(end) - 2 }]} />)}
      </View>
      <WaveStrip source={source} width={width} from={first} to={last} />
      <View style={[styles.playhead, { left: width / 2 - pixels / 2, width: Math.max(3, pixels) }]} />
    </>,
  );
  return (
    <GestureDetector gesture={draw}>
      <View style={{ width }}>{strip}</View>
    </GestureDetector>
  );
}

/** Frames of the pictures that are seen, and one more at each side; the same array while they are the same. */
function useTiles(frame: number, across: number, every: number, frames: number): number[] {
  const from = Math.max(0, Math.floor((frame - across / 2) / every));
  const to = Math.min(Math.floor((frames - 1) / every), Math.ceil((frame + across / 2) / every));
  return useMemo(
    () => Array.from({ length: to - from + 1 }, (_, i) => (from + i) * every),
    [from, to, every],
  );
}

const styles = StyleSheet.create({
  pictures: { height: HEIGHT, overflow: 'hidden', backgroundColor: colours.hairline, borderRadius: 3 },
  tile: { position: 'absolute', top: 0, height: HEIGHT, overflow: 'hidden' },
  shot: { position: 'absolute', top: 0, bottom: 0, width: 3, backgroundColor: colours.madder },
  end: { position: 'absolute', top: 0, bottom: 0, width: 4, backgroundColor: colours.woad },
  beyond: { position: 'absolute', top: 0, bottom: 0, backgroundColor: colours.hairline },
  playhead: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    borderWidth: 2,
    borderColor: colours.ink,
    pointerEvents: 'none',
  },
});
