import { useRef, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { Gesture, GestureDetector } from 'react-native-gesture-handler';
import { Button } from 'react-native-paper';
import { NO_REPAIRS } from '@core/master/repairs';
import { clamp, type PictureRect } from '@core/picture/size';
import { useJob, useSource } from '../job/job-context';
import { NumberField } from '../parts/number-field';
import { PictureView } from '../parts/picture-view';
import { Soft } from '../parts/words';
import { colours, space, TARGET } from '../theme/tokens';
import { useRepair } from './diagnosis';

const MAX_ROWS = 320;
const EDGES = ['left', 'top', 'right', 'bottom'] as const;
type Edge = (typeof EDGES)[number];
/** The live area keeps at least this share of each side. */
const MIN_SHARE = 0.1;

/** Where an edge lies, 0…1 from the left or the top. */
const toEdge = (live: PictureRect, edge: Edge): number =>
  ({ left: live.x, top: live.y, right: live.x + live.width, bottom: live.y + live.height })[edge];

function withEdge(live: PictureRect, edge: Edge, to: number): PictureRect {
  const right = live.x + live.width;
  const bottom = live.y + live.height;
  switch (edge) {
    case 'left': {
      const x = clamp(to, 0, right - MIN_SHARE);
      return { ...live, x, width: right - x };
    }
    case 'right':
      return { ...live, width: clamp(to, live.x + MIN_SHARE, 1) - live.x };
    case 'top': {
      const y = clamp(to, 0, bottom - MIN_SHARE);
      return { ...live, y, height: bottom - y };
    }
    case 'bottom':
      return { ...live, height: clamp(to, live.y + MIN_SHARE, 1) - live.y };
  }
}

/** The master with its live area; its edges are dragged, or typed. */
export function LivePicture() {
  const { edit } = useJob();
  const source = useSource();
  const repair = useRepair();
  const [room, setRoom] = useState(0);
  const [draft, setDraft] = useState<PictureRect | null>(null);
  const [editing, setEditing] = useState(false);
  const { picture } = source;
  const height = Math.min(room * (picture.height / picture.width), MAX_ROWS);
  const width = height * (picture.width / picture.height);
  const live = draft ?? source.live;
  const setArea = (next: PictureRect) => {
    const whole = next.width > 0.9999 && next.height > 0.9999;
    repair({ ...(edit.repairs[source.id] ?? NO_REPAIRS), live: whole ? null : next });
  };
  const toSide = (edge: Edge) => (edge === 'left' || edge === 'right' ? picture.width : picture.height);
  const toBar = (edge: Edge) => {
    const place = toEdge(live, edge);
    return Math.round((edge === 'left' || edge === 'top' ? place : 1 - place) * toSide(edge));
  };
  const take = (edge: Edge) => (pixels: number) => {
    const bar = pixels / toSide(edge);
    setArea(withEdge(live, edge, edge === 'left' || edge === 'top' ? bar : 1 - bar));
  };
  return (
    <View
      style={styles.outer}
      onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}
    >
      {height > 0 && (
        <View style={{ width, height }}>
          <PictureView view="master" label="The master" width={width} height={height} />
          <Papers live={live} width={width} height={height} />
          {editing &&
            EDGES.map((edge) => (
              <EdgeHandle
                key={edge}
                edge={edge}
                live={live}
                width={width}
                height={height}
                onMove={(to, done) => {
                  const next = withEdge(source.live, edge, to);
                  setDraft(done ? null : next);
                  if (done) setArea(next);
                }}
              />
            ))}
        </View>
      )}
      {editing ? (
        <>
          <View style={styles.fields}>
            {EDGES.map((edge) => (
              <NumberField
                key={edge}
                label={`Bar ${edge}`}
                unit="px"
                value={String(toBar(edge))}
                least={0}
                most={Math.floor(toSide(edge) * (1 - MIN_SHARE))}
                onTake={take(edge)}
              />
            ))}
          </View>
          <Soft>Drag the edges to where the picture begins. Windows stay inside.</Soft>
          <Button onPress={() => setEditing(false)}>Done with the edges</Button>
        </>
      ) : (
        <Button mode="outlined" onPress={() => setEditing(true)}>
          Set the live area
        </Button>
      )}
    </View>
  );
}

/** Dimmed areas outside the active picture. */
function Papers({ live, width, height }: { live: PictureRect; width: number; height: number }) {
  const { x, y } = live;
  const [right, bottom] = [x + live.width, y + live.height];
  return (
    <>
      <View style={[styles.paper, { left: 0, top: 0, width, height: y * height }]} />
      <View style={[styles.paper, { left: 0, top: bottom * height, width, height: (1 - bottom) * height }]} />
      <View
        style={[styles.paper, { left: 0, top: y * height, width: x * width, height: live.height * height }]}
      />
      <View
        style={[
          styles.paper,
          { left: right * width, top: y * height, width: (1 - right) * width, height: live.height * height },
        ]}
      />
    </>
  );
}

function EdgeHandle({
  edge,
  live,
  width,
  height,
  onMove,
}: {
  edge: Edge;
  live: PictureRect;
  width: number;
  height: number;
  onMove: (to: number, done: boolean) => void;
}) {
  const begun = useRef(0);
  const across = edge === 'left' || edge === 'right';
  const side = across ? width : height;
  const to = (x: number, y: number) => begun.current + (across ? x : y) / side;
  const pan = Gesture.Pan()
    .runOnJS(true)
    .minDistance(0)
    .onBegin(() => (begun.current = toEdge(live, edge)))
    .onUpdate(({ translationX, translationY }) => onMove(to(translationX, translationY), false))
    .onEnd(({ translationX, translationY }) => onMove(to(translationX, translationY), true));
  const along = clamp(toEdge(live, edge) * side - TARGET / 2, -TARGET / 2, side - TARGET / 2);
  const place = across
    ? { left: along, top: 0, width: TARGET, height }
    : { left: 0, top: along, width, height: TARGET };
  return (
    <GestureDetector gesture={pan}>
      <View aria-label={`Edge ${edge}`} style={[styles.handle, place]}>
        <View style={across ? styles.lineDown : styles.lineAcross} />
      </View>
    </GestureDetector>
  );
}

const styles = StyleSheet.create({
  outer: { alignItems: 'center', gap: space.s },
  paper: { position: 'absolute', backgroundColor: colours.papered, pointerEvents: 'none' },
  handle: {
    position: 'absolute',
    alignItems: 'center',
    justifyContent: 'center',
  },
  lineDown: { width: 3, height: '100%', backgroundColor: colours.woad },
  lineAcross: { height: 3, width: '100%', backgroundColor: colours.woad },
  fields: { flexDirection: 'row', gap: space.s, alignSelf: 'stretch' },
});
