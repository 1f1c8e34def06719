import { useMemo } from 'react';
import { type Framing, type Point } from '@core/framing/framing';
import {
  enlargement,
  type Margin,
  computeMargin,
  moveWindow,
  moveFocus,
  type KeyframeScope,
  snapMove,
  zoomFraming,
} from '@core/framing/moves';
import type { Aspects, PictureWindow, Window } from '@core/framing/window';
import { activeCanvas } from '@core/job/clip';
import type { ActOf, Owner } from '@core/job/commands/commands';
import { activeClip, type Job } from '@core/job/job';
import type { Source } from '@core/master/source';
import { findShot, listShots } from '@core/cut/master-shots';
import type { Shot } from '@core/cut/shot';
import type { Canvas } from '@core/layout/canvas';
import { MAIN_TRACK } from '@core/layout/pane';
import type { PictureRect, Size } from '@core/picture/size';
import { planPanes, type PlannedPane, shotPanes } from '@core/render/plan';
import { findFraming } from '@core/layout/find-framing';
import { type Mode, useFramingUi } from '@state/framing';
import { dispatch } from '@state/job';
import { type Draft, withDraft, player, usePlayer } from '@state/player';
import { useJob, useSource } from '../job/job-context';

type FramingAct = ActOf<'set-framings'>;
type Vector = { x: number; y: number };

/** The framing of the shot on screen on the canvas being worked on, and the ways to change it. */
export interface FramingTools {
  shot: Shot;
  /** Its place among the shots, from 1. */
  number: number;
  shots: Shot[];
  frame: number;
  canvas: Canvas;
  track: string;
  owner: Owner;
  scope: KeyframeScope;
  framing: Framing;
  /** Every pane of the canvas at the playhead, and which of them is worked on. */
  panes: PlannedPane[];
  pane: PlannedPane;
  /** The window being worked on at the playhead, 0…1 of the picture and of the live area. */
  window: PictureWindow;
  framed: Window;
  /** The whole picture is shown: there is no window to move. */
  fits: boolean;
  live: PictureRect;
  liveSize: Size;
  aspects: Aspects;
  margin: Margin;
  /** Canvas pixels per master pixel. */
  enlarged: number;
  /** Keeps a framing as a step; steps with the same word right after each other are one. */
  keep(act: FramingAct, next: Framing, joins?: string): void;
  /** Moves from a framing by a distance in 0…1 of the picture; shown, and kept when `done`. */
  move(from: Framing, by: Vector, done: boolean, snap?: Vector): void;
  /** Zooms from a framing about a place in the picture; shown, and kept when `done`. */
  zoom(from: Framing, factor: number, pin: Vector, done: boolean): void;
  /** A small step that joins the one before it: arrow keys, wheel. */
  nudge(by: Vector): void;
  nudgeZoom(factor: number, pin: Vector): void;
  /** Puts a place in the picture at the seat. */
  point(point: Vector): void;
  /** A place in the picture as one of the live area. */
  place(point: Vector): Point;
}

/** Input of the tools. */
interface Bench {
  job: Job;
  source: Source;
  shots: Shot[];
  frame: number;
  /** The track that was chosen, and what a change is for. */
  wanted: string;
  mode: Mode;
}

function useBenchState(): Bench {
  const job = useJob();
  const source = useSource();
  const frame = usePlayer((state) => state.frame);
  const wanted = useFramingUi((state) => state.track);
  const mode = useFramingUi((state) => state.mode);
  const shots = useMemo(() => listShots(job.edit.shots, source), [job.edit, source]);
  return useMemo(
    () => ({ job, source, shots, frame, wanted, mode }),
    [job, source, shots, frame, wanted, mode],
  );
}

/** The framing as the job has it: it stays the same while a window is dragged, and so do the panels that show it. */
export function useFraming(): FramingTools {
  const bench = useBenchState();
  return useMemo(() => createTools(bench, null), [bench]);
}

/** The framing as it is on screen, with what is being dragged. */
export function useDraggedFraming(): FramingTools {
  const bench = useBenchState();
  const draft = usePlayer((state) => state.draft);
  return useMemo(() => createTools(bench, draft), [bench, draft]);
}

function createTools(
  { job: settled, source, shots, frame, wanted, mode }: Bench,
  draft: Draft | null,
): FramingTools {
  const { edit } = withDraft(settled, draft);
  const canvas = activeCanvas(activeClip(edit));
  const shot = findShot(edit.shots, source, frame);
  const drawn = shotPanes(canvas, edit.framings, shot, source);
  const panes = planPanes(drawn, frame);
  const tracks = panes.map((pane) => pane.track);
  const track = tracks.includes(wanted) ? wanted : MAIN_TRACK;
  // The last pane of a track lies on top: the fitted picture, not its backdrop.
  const index = tracks.lastIndexOf(track);
  const pane = panes[index] as PlannedPane;
  const turn = drawn.panes[index]?.framing?.turn;
  const fits = turn === undefined;
  const { live, liveSize } = drawn;
  const aspects = {
    pane: pane.picture.width / pane.picture.height,
    live: liveSize.width / liveSize.height,
  };
  const alone = canvas.detached.some((framing) => framing.shot === shot.id);
  const owner: Owner = alone ? { canvas: canvas.id } : 'shared';
  const framing = findFraming(canvas, edit.framings, shot, track);
  const scope: KeyframeScope = mode === 'frame' ? frame : 'shot';
  const { id } = settled;
  const act = (name: FramingAct, next: Framing, done: boolean, joins?: string) => {
    const framings = [next];
    if (done) dispatch(id, { type: 'set-framings', act: name, owner, framings }, joins);
    player.setDraft(done ? null : { framings, owner });
  };
  // Gestures and numbers speak of the whole picture, framings of its live area.
  const inLive = (by: Vector) => ({ x: by.x / live.width, y: by.y / live.height });
  const place = (to: Vector) => inLive({ x: to.x - live.x, y: to.y - live.y });
  // A layout may turn a pane besides its framing: windows move as they lie.
  const asDrawn = (framing: Framing, change: (drawn: Framing) => Framing): Framing =>
    fits ? framing : { ...change({ ...framing, turn }), turn: framing.turn };
  const moveBy = (from: Framing, by: Vector, snap?: Vector) =>
    asDrawn(from, (framing) => {
      const way = inLive(by);
      if (!snap) return moveWindow(framing, scope, way, aspects);
      const start = planPanes({ ...drawn, panes: redrawPane(drawn.panes, index, framing) }, frame)[
        index
      ] as PlannedPane;
      const snapped = snapMove(start.framed, way, inLive(snap), aspects.live);
      return moveWindow(framing, scope, snapped, aspects);
    });
  const changeZoom = (from: Framing, factor: number, pin: Vector) =>
    asDrawn(from, (framing) => zoomFraming(framing, scope, factor, place(pin), aspects));
  return {
    shot,
    number: shots.findIndex((other) => other.id === shot.id) + 1,
    shots,
    frame,
    canvas,
    track,
    owner,
    scope,
    framing,
    panes,
    pane,
    window: pane.window,
    framed: pane.framed,
    fits,
    live,
    liveSize,
    aspects,
    margin: computeMargin(pane.framed, liveSize),
    enlarged: enlargement(pane.framed, liveSize, pane.picture.width),
    keep: (name, next, joins) => act(name, next, true, joins),
    move: (from, by, done, snap) => act('move', moveBy(from, by, snap), done),
    zoom: (from, factor, pin, done) => act('zoom', changeZoom(from, factor, pin), done),
    nudge: (by) => act('move', moveBy(framing, by), true, `nudge-${shot.id}`),
    nudgeZoom: (factor, pin) => act('zoom', changeZoom(framing, factor, pin), true, `zoom-${shot.id}`),
    point: (to) => act('point', moveFocus(framing, scope, place(to)), true),
    place,
  };
}

/** Panes with the framing of one in another's place. */
function redrawPane<Pane extends { framing: unknown }>(
  panes: readonly Pane[],
  index: number,
  framing: Framing,
): Pane[] {
  return panes.map((pane, i) => (i === index ? { ...pane, framing } : pane));
}
