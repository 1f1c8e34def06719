import { memo, useDeferredValue, useMemo, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, useWindowDimensions, View } from 'react-native';
import { shotStates } from '@core/check/shot-states';
import { type Mode, type Panel, useFramingUi } from '@state/framing';
import { player, usePlayer } from '@state/player';
import { JobPage } from '../job/job-page';
import { useJob, useSource } from '../job/job-context';
import { Choice } from '../parts/choice';
import { usePageRoom } from '../parts/page-room';
import { Transport } from '../parts/transport';
import { useKeys } from '../parts/use-keys';
import { space, WIDE } from '../theme/tokens';
import { CanvasCards } from './canvas-cards';
import { CanvasPicture } from './canvas-picture';
import { CopyPanel } from './copy-panel';
import { CoverageFacts } from './coverage-facts';
import { listDoubts, FollowPanel, showDoubt } from './follow-panel';
import { LayoutPanel } from './layout-panel';
import { LookBar } from './look-bar';
import { MasterBench } from './master-bench';
import { MotionPanel } from './motion-panel';
import { FramingNumbers } from './framing-numbers';
import { PlacePanel } from './place-panel';
import { ShotStrip } from './shot-strip';
import { TurnPanel } from './turn-panel';
import { type FramingTools, useDraggedFraming, useFraming } from './use-framing';
import { useCanvasLabel } from '../job/use-target';

/** Most rows that the canvas that is worked on takes on a phone, and the fewest that it has below the master. */
const CANVAS_ROWS = 190;
const MIN_CANVAS = 140;
/** The fewest rows of the two where they stand beside each other. */
const MIN_ROWS = 90;
const MIN_WIDE = 220;
/** Rows of the transport, and of the strip of shots and its ticks below the pictures of a wide page. */
const TRANSPORT = 48;
const BELOW_WIDE = 250;
/** Rows of a card below its picture, and the most that cards take on a phone. */
const CARD_FOOT = 40;
const MAX_CARD = 190;
const MODES: readonly { value: Mode; label: string }[] = [
  { value: 'shot', label: 'Whole shot' },
  { value: 'frame', label: 'From this frame on' },
];
const PANEL_OPTIONS: readonly { value: Panel; label: string }[] = [
  { value: 'place', label: 'Place' },
  { value: 'motion', label: 'Motion' },
  { value: 'follow', label: 'Follow' },
  { value: 'turn', label: 'Turn' },
  { value: 'layout', label: 'Layout' },
  { value: 'copy', label: 'Copy' },
];
const PANELS = {
  place: memo(PlacePanel),
  motion: memo(MotionPanel),
  follow: memo(FollowPanel),
  turn: memo(TurnPanel),
  layout: memo(LayoutPanel),
  copy: memo(CopyPanel),
};
const Numbers = memo(FramingNumbers);
const Facts = memo(CoverageFacts);
const Strip = memo(ShotStrip);
const Cards = memo(CanvasCards);
const Look = memo(LookBar);
const NONE: readonly string[] = [];

/** The bench: the master with every canvas's window, and the canvases as they will be, playing in step. */
export function FrameScreen() {
  const labelOf = useCanvasLabel();
  const job = useJob();
  const tools = useFraming();
  const dragged = useDraggedFraming();
  const mode = useFramingUi((state) => state.mode);
  const panel = useFramingUi((state) => state.panel);
  const { edit, masters } = job;
  const states = useMemo(() => shotStates({ edit, masters }), [edit, masters]);
  const state = states.find((shotState) => shotState.shot.id === tools.shot.id);
  useFrameKeys(tools);
  // While it plays, sound and picture come first: what can be typed and pressed follows as there is time.
  const playing = usePlayer((state) => state.playing);
  const deferred = useDeferredValue(tools);
  const calm = playing ? deferred : tools;
  const moving = useDeferredValue(dragged);
  const live = playing ? moving : dragged;
  const wide = useWindowDimensions().width >= WIDE;
  const Chosen = PANELS[panel];
  const modes = (
    <Choice
      label="A change is for"
      hotkey="M"
      value={mode}
      options={MODES}
      onChange={(value) => useFramingUi.setState({ mode: value })}
    />
  );
  const panels = (
    <Choice
      label="What to change"
      value={panel}
      options={PANEL_OPTIONS}
      onChange={(value) => useFramingUi.setState({ panel: value })}
    />
  );
  return (
    <JobPage
      title="Framing"
      subtitle={`Shot ${tools.number} of ${tools.shots.length}, ${labelOf(tools.canvas)}${tools.owner === 'shared' ? '' : ', by itself'}`}
      tray={
        wide ? (
          <>
            <View style={styles.row}>
              <View style={styles.grow}>{panels}</View>
              {panel !== 'follow' && <View style={styles.modes}>{modes}</View>}
            </View>
            <View style={styles.row}>
              <View style={styles.panel}>
                <Chosen tools={calm} />
              </View>
              <View style={styles.numbers}>
                <Numbers tools={live} />
              </View>
            </View>
          </>
        ) : (
          <>
            {panel !== 'follow' && modes}
            <Chosen tools={calm} />
            {panels}
          </>
        )
      }
    >
      <Pictures tools={dragged} detached={state?.detached ?? NONE} />
      <Strip shots={tools.shots} states={states} current={tools.shot.id} />
      <Look state={state} states={states} />
      {!wide && <Numbers tools={live} />}
      <Facts tools={live} />
    </JobPage>
  );
}

/** All pictures, as large as the page lets them be: the master and the canvas that is worked on stay whole. */
function Pictures({ tools, detached }: { tools: FramingTools; detached: readonly string[] }) {
  const { picture } = useSource();
  const [room, setRoom] = useState(0);
  const page = usePageRoom();
  const wide = useWindowDimensions().width >= WIDE;
  const aspects = {
    live: picture.width / picture.height,
    canvas: tools.canvas.width / tools.canvas.height,
  };
  const { master, canvas, beside } = wide ? wideSizes(room, page, aspects) : phoneSizes(room, page, aspects);
  const cards = (
    <Cards
      current={tools.canvas.id}
      detached={detached}
      rows={(wide ? canvas / 2 : Math.min(canvas, MAX_CARD)) - CARD_FOOT}
      wrap={wide}
    />
  );
  const large = <CanvasPicture tools={tools} width={canvas * aspects.canvas} height={canvas} />;
  return (
    <View
      style={[styles.pictures, wide && styles.side]}
      onLayout={(event: LayoutChangeEvent) => setRoom(event.nativeEvent.layout.width)}
    >
      {room > 0 && page > 0 && (
        <>
          <View style={beside && !wide ? styles.beside : styles.master}>
            <MasterBench tools={tools} width={master * aspects.live} height={master} />
            {beside && !wide ? large : <Transport />}
          </View>
          {beside && !wide && <Transport />}
          <View style={styles.canvas}>
            {(wide || !beside) && large}
            {cards}
          </View>
        </>
      )}
    </View>
  );
}

interface Sizes {
  /** Rows of the master and of the canvas, in pixels. */
  master: number;
  canvas: number;
  /** The two stand beside each other. */
  beside: boolean;
}

/** On a phone one stands below the other where there is room for both, else they stand beside each other. */
function phoneSizes(room: number, page: number, { live, canvas }: { live: number; canvas: number }): Sizes {
  const whole = room / live;
  const left = page - whole - TRANSPORT - 2 * space.s;
  if (left >= MIN_CANVAS) {
    return { master: whole, canvas: Math.min(CANVAS_ROWS, left, (room * 0.58) / canvas), beside: false };
  }
  const rows = Math.min((room - space.m) / (live + canvas), page - TRANSPORT - space.s);
  const both = Math.max(MIN_ROWS, rows);
  return { master: both, canvas: both, beside: true };
}

/** On a wide page they stand beside each other, as high as what is below them leaves. */
function wideSizes(room: number, page: number, { live, canvas }: { live: number; canvas: number }): Sizes {
  const rows = Math.max(MIN_WIDE, page - TRANSPORT - BELOW_WIDE);
  const master = Math.min(rows, (room * 0.62) / live);
  return { master, canvas: Math.min(master, (room * 0.26) / canvas), beside: true };
}

/**
 * Arrows move the window by a master pixel, with Shift by ten; + and − zoom about its middle; Page Up and Page Down go
 * from shot to shot; M changes what a change is for; D shows the next doubtful moment of what is followed.
 */
function useFrameKeys(tools: FramingTools): void {
  const { picture } = useSource();
  const { nudge, nudgeZoom, window, shots, number, framing, frame, shot } = tools;
  const keys = useMemo(() => {
    const by = (x: number, y: number) => () => nudge({ x: x / picture.width, y: y / picture.height });
    const middle = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
    const go = (frame: number) => () => {
      const shot = shots[frame];
      if (shot) player.showFrame(shot.in);
    };
    return {
      ArrowLeft: by(-1, 0),
      ArrowRight: by(1, 0),
      ArrowUp: by(0, -1),
      ArrowDown: by(0, 1),
      'Shift+ArrowLeft': by(-10, 0),
      'Shift+ArrowRight': by(10, 0),
      'Shift+ArrowUp': by(0, -10),
      'Shift+ArrowDown': by(0, 10),
      '+': () => nudgeZoom(1.05, middle),
      'Shift++': () => nudgeZoom(1.05, middle),
      '-': () => nudgeZoom(1 / 1.05, middle),
      PageUp: go(number - 2),
      PageDown: go(number),
      d: () => showDoubt(listDoubts(framing, shot), frame),
      h: () => useFramingUi.setState(({ bare }) => ({ bare: !bare })),
      m: () => useFramingUi.setState(({ mode }) => ({ mode: mode === 'shot' ? 'frame' : 'shot' })),
    };
  }, [nudge, nudgeZoom, window, picture, shots, number, framing, frame, shot]);
  useKeys(keys);
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.l, alignItems: 'center' },
  grow: { flex: 1 },
  panel: { flex: 1, gap: space.s },
  numbers: { width: 360 },
  modes: { width: 300 },
  pictures: { gap: space.s },
  side: { flexDirection: 'row', alignItems: 'flex-start' },
  master: { gap: space.xs },
  beside: { flexDirection: 'row', gap: space.m },
  canvas: { flexDirection: 'row', gap: space.m, flexShrink: 1 },
});
