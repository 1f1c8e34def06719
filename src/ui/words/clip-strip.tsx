import { type ReactNode, useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { GestureDetector } from 'react-native-gesture-handler';
import { clamp } from '@core/picture/size';
import { rateValue } from '@core/time/frame-rate';
import { toMasterFrame, type Timeline } from '@core/words/spans';
import { StripPicture, useStripPictures } from '../cut/strip-picture';
import { useSource } from '../job/job-context';
import { scrubGesture, StripZoom } from '../parts/strip-zoom';
import { colours } from '../theme/tokens';
import { useClipTime } from './use-clip-time';
import { useTimeline } from './use-words';

/** Rows of the pictures, and of the lane with words below them, in pixels. */
const PICTURES = 36;
export const LANE = 44;
/** Columns of one picture. */
const TILE = 48;
/** How much of the clip is seen at once, in seconds; null for all of it. */
const SEEN = [null, 30, 12, 5] as const;

/** Scale of a strip: the visible part of a clip, and where its frames lie. */
export interface StripScale {
  /** Output frames that are seen, half-open. */
  from: number;
  to: number;
  /** Pixels from the strip's left edge. */
  place(frame: number): number;
  /** Output frames for so many pixels. */
  framesIn(pixels: number): number;
}

/** The clip as a strip: its pictures, its cuts, and a lane for words where there are any; a drag on the pictures moves the playhead. */
export function ClipStrip({ children }: { children?: (scale: StripScale) => ReactNode }) {
  const [width, setWidth] = useState(0);
  const [zoom, setZoom] = useState(0);
  return (
    <View onLayout={(event: LayoutChangeEvent) => setWidth(event.nativeEvent.layout.width)}>
      {width > 0 && <Strip width={width} seconds={SEEN[zoom] ?? null} words={children} />}
      <StripZoom
        seen={SEEN[zoom] ? `${SEEN[zoom]} s of the clip at a time` : 'The whole clip'}
        zoom={zoom}
        most={SEEN.length - 1}
        onZoom={setZoom}
      />
    </View>
  );
}

function Strip({
  width,
  seconds,
  words,
}: {
  width: number;
  seconds: number | null;
  /** Contents of the lane; without them there is none. */
  words: ((scale: StripScale) => ReactNode) | undefined;
}) {
  const time = useClipTime();
  const timeline = useTimeline();
  const source = useSource();
  const seen =
    seconds === null ? time.frames : Math.min(time.frames, Math.round(seconds * rateValue(timeline.rate)));
  // The piece that is seen turns like a page when the playhead leaves it.
  const page = Math.floor((time.frame ?? 0) / seen);
  const from = clamp(page * seen, 0, Math.max(0, time.frames - seen));
  const to = from + seen;
  const scale: StripScale = {
    from,
    to,
    place: (frame) => ((frame - from) / seen) * width,
    framesIn: (pixels) => Math.round((pixels / width) * seen),
  };
  const tiles = useTiles(width, from, to, timeline);
  const own = useOwnFrames(tiles, source.id);
  const pictures = useStripPictures(source, own, (TILE / width) * seen);
  const scrub = scrubGesture((x) => time.show(clamp(from + Math.floor((x / width) * seen), from, to - 1)));
  const cuts = timeline.starts.slice(1, -1).filter((start) => start > from && start < to);
  return (
    <View style={[styles.strip, { width }]}>
      <GestureDetector gesture={scrub}>
        <View role="img" aria-label="The clip as a strip" style={styles.pictures}>
          {tiles.map((tile, i) => (
            <View key={i} style={[styles.tile, { left: i * TILE }]}>
              <StripPicture
                picture={tile?.master === source.id ? pictures[tile.frame] : undefined}
                width={TILE}
                height={PICTURES}
              />
            </View>
          ))}
        </View>
      </GestureDetector>
      {words && <View style={styles.lane}>{words(scale)}</View>}
      {cuts.map((cut) => (
        <View key={cut} style={[styles.cut, { left: scale.place(cut) - 1 }]} />
      ))}
      {time.frame !== null && (
        <View style={[styles.playhead, { left: scale.place(time.frame + 0.5) - 1.5 }]} />
      )}
    </View>
  );
}

type Tile = ReturnType<typeof toMasterFrame>;

/** The frames of the strip's tiles, each from its tile's middle. */
function useTiles(width: number, from: number, to: number, timeline: Timeline): Tile[] {
  return useMemo(
    () =>
      Array.from({ length: Math.ceil(width / TILE) }, (_, i) => {
        const output = from + Math.floor((((i + 0.5) * TILE) / width) * (to - from));
        return toMasterFrame(Math.min(to - 1, output), timeline);
      }),
    [width, from, to, timeline],
  );
}

/** Lists the frames of one master, each once. */
function useOwnFrames(tiles: readonly Tile[], master: string): number[] {
  return useMemo(
    () => [...new Set(tiles.flatMap((tile) => (tile?.master === master ? [tile.frame] : [])))],
    [tiles, master],
  );
}

const styles = StyleSheet.create({
  strip: { overflow: 'hidden' },
  pictures: { height: PICTURES, overflow: 'hidden', backgroundColor: colours.hairline, borderRadius: 3 },
  tile: { position: 'absolute', top: 0, width: TILE, height: PICTURES, overflow: 'hidden' },
  lane: { height: LANE, backgroundColor: colours.sheet, borderBottomWidth: 1, borderColor: colours.hairline },
  cut: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    width: 2,
    backgroundColor: colours.madder,
    pointerEvents: 'none',
  },
  playhead: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    width: 3,
    backgroundColor: colours.ink,
    pointerEvents: 'none',
  },
});
