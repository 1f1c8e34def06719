import { useMemo, useRef, useState } from 'react';
import { type LayoutChangeEvent, ScrollView, StyleSheet, View } from 'react-native';
import { GestureDetector } from 'react-native-gesture-handler';
import type { Edge } from '@core/cut/range-edits';
import { findSnapPoint } from '@core/cut/snap';
import type { Shot } from '@core/cut/shot';
import type { Source } from '@core/master/source';
import { clamp } from '@core/picture/size';
import { player, usePlayer } from '@state/player';
import { scrubGesture, StripZoom } from '../parts/strip-zoom';
import { Soft } from '../parts/words';
import { colours } from '../theme/tokens';
import { CutHandle } from './cut-handle';
import { CloseStrip } from './close-strip';
import { FLAG_HEIGHT, STRIP_HEIGHT } from './strip-height';
import { StripPicture, useStripPictures } from './strip-picture';
import type { CutTools } from './use-cut';
import { WaveStrip } from './wave-strip';

/** Width of one picture of the strip, in pixels: the middle of the frame is shown. */
const TILE = 56;
/** Ends snap within this many pixels. */
const SNAP = 7;
const ZOOMS = [1, 2, 4, 8, 16];
/** How much of the master is seen at each. */
const SEEN = ['All', 'Half', 'A quarter', 'An eighth', 'A sixteenth'];

interface Props {
  tools: CutTools;
  /** True when shots are worked on: their starts are then drawn strongly. */
  shotMarks: boolean;
}

/** The master as a strip of pictures with its sound, shots and what is kept of it; the range worked on has handles. */
export function Filmstrip({ tools, shotMarks }: Props) {
  const [room, setRoom] = useState(0);
  const [zoom, setZoom] = useState(0);
  const width = room * (ZOOMS[zoom] ?? 1);
  return (
    <View onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}>
      <ScrollView horizontal scrollEnabled={zoom > 0} contentContainerStyle={{ width: Math.max(width, 1) }}>
        {room > 0 && <Strip tools={tools} width={width} shotMarks={shotMarks} />}
      </ScrollView>
      {room > 0 && <CloseStrip tools={tools} width={room} />}
      <StripZoom seen={zoomWords(tools.source, zoom)} zoom={zoom} most={ZOOMS.length - 1} onZoom={setZoom} />
    </View>
  );
}

const zoomWords = (source: Source, zoom: number): string =>
  `${SEEN[zoom]} of ${source.fileName}${zoom > 0 ? ' at a time' : ''}`;

function Strip({ tools, width, shotMarks }: Props & { width: number }) {
  const frame = usePlayer((state) => state.frame);
  const { source, range, cut, index, shots, points } = tools;
  const { frames } = source;
  const tiles = useTiles(frames, width);
  const pictures = useStripPictures(source, tiles, (TILE / Math.max(1, width)) * frames);
  const place = (frame: number) => (frame / frames) * width;
  const frameAtX = (x: number) => clamp(Math.floor((x / Math.max(1, width)) * frames), 0, frames - 1);
  const scrub = scrubGesture((x) => player.showFrame(frameAtX(x), source.id));
  const begun = useRef(0);
  const drag = (edge: Edge, pixels: number, done: boolean) => {
    const wanted = begun.current + Math.round((pixels / width) * frames);
    const bound = edge === 'in' ? wanted : wanted + 1;
    const point = findSnapPoint(bound, points, Math.round((SNAP / width) * frames));
    const met = point ? (edge === 'in' ? point.frame : point.frame - 1) : wanted;
    tools.trim(edge, clamp(met, 0, frames - 1), done);
  };
  const handle = (edge: Edge, edgeFrame: number) => (
    <CutHandle
      edge={edge}
      left={place(edge === 'in' ? edgeFrame : edgeFrame + 1)}
      frame={edgeFrame}
      frames={frames}
      onBegin={() => (begun.current = edgeFrame)}
      onMove={(pixels, done) => drag(edge, pixels, done)}
      onStep={(by) => tools.trim(edge, clamp(edgeFrame + by, 0, frames - 1), true, `trim-${edge}`)}
    />
  );
  const own = cut.filter((range) => range.master === source.id);
  return (
    <View style={[styles.outer, { width }]}>
      <GestureDetector gesture={scrub}>
        <View role="img" aria-label="Filmstrip of the master">
          <View style={styles.strip}>
            {tiles.map((frame, i) => (
              <View key={frame} style={[styles.tile, { left: i * TILE, width: TILE }]}>
                <StripPicture picture={pictures[frame]} width={TILE} height={STRIP_HEIGHT} />
              </View>
            ))}
            {listGaps(own, frames).map(({ from, to }) => (
              <View
                key={from}
                style={[styles.papered, { left: place(from), width: place(to) - place(from) }]}
              />
            ))}
            {listMarks(shots, place).map((shot) => (
              <View
                key={shot.id}
                style={[styles.shot, shotMarks && styles.shotStrong, { left: place(shot.in) - 1 }]}
              />
            ))}
          </View>
          <WaveStrip source={source} width={width} from={0} to={frames} />
          <View style={[styles.playhead, { left: place(frame + 0.5) - 1.5 }]} />
        </View>
      </GestureDetector>
      {range.master === source.id && handle('in', range.in)}
      {range.master === source.id && handle('out', range.out - 1)}
      {cut.length > 1 && range.master === source.id && (
        <Soft style={[styles.number, { left: place(range.in) + 6 }]}>{index + 1}</Soft>
      )}
    </View>
  );
}

/** Marks of cuts stand at least this far from each other, in pixels: pictures stay to be seen between them. */
const APART = 14;

/** Shots whose beginning is marked: those that stand too close to the one before give way. */
function listMarks(shots: readonly Shot[], place: (frame: number) => number): Shot[] {
  let last = 0;
  return shots.slice(1).filter((shot) => {
    if (place(shot.in) - last < APART) return false;
    last = place(shot.in);
    return true;
  });
}

/** Lists the parts of a master that no range keeps. */
function listGaps(
  ranges: readonly { in: number; out: number }[],
  frames: number,
): { from: number; to: number }[] {
  const sorted = [...ranges].sort((a, b) => a.in - b.in);
  const gaps: { from: number; to: number }[] = [];
  let start = 0;
  for (const range of sorted) {
    if (range.in > start) gaps.push({ from: start, to: range.in });
    start = Math.max(start, range.out);
  }
  if (start < frames) gaps.push({ from: start, to: frames });
  return gaps;
}

/** The frames of the strip's tiles: as many as fit, each from its tile's middle. */
function useTiles(frames: number, width: number): number[] {
  return useMemo(() => {
    const middle = (i: number) => Math.min(frames - 1, Math.floor((((i + 0.5) * TILE) / width) * frames));
    return [...new Set(Array.from({ length: Math.ceil(width / TILE) }, (_, i) => middle(i)))];
  }, [frames, width]);
}

const styles = StyleSheet.create({
  outer: { paddingVertical: FLAG_HEIGHT },
  strip: { height: STRIP_HEIGHT, overflow: 'hidden', backgroundColor: colours.hairline, borderRadius: 3 },
  tile: { position: 'absolute', top: 0, height: STRIP_HEIGHT, overflow: 'hidden' },
  papered: { position: 'absolute', top: 0, bottom: 0, backgroundColor: colours.papered },
  shot: { position: 'absolute', top: 0, bottom: 0, width: 2, backgroundColor: colours.chalk, opacity: 0.8 },
  shotStrong: { width: 3, backgroundColor: colours.madder, opacity: 1 },
  playhead: { position: 'absolute', top: 0, bottom: 0, width: 3, backgroundColor: colours.ink },
  number: {
    position: 'absolute',
    top: FLAG_HEIGHT + 2,
    color: colours.ink,
    backgroundColor: colours.papered,
  },
});
