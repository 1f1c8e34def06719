import { useCallback, useMemo } from 'react';
import { type Framing, type Point, windowAt } from '@core/framing/framing';
import { type Aspects, enlargement, type Margin, marginOf, moved, zoomed } from '@core/framing/moves';
import { activeCanvas } from '@core/job/clip';
import { framingOf, shotAt, shotsOf } from '@core/job/job';
import type { Shot } from '@core/job/shot';
import { inPicture, liveSize } from '@core/picture/live-area';
import type { Rect } from '@core/picture/size';
import { dispatch } from '@state/jobs';
import { setDraft, usePlayer } from '@state/player';
import { useClip, useJob, useSource } from '../job/job-context';

const WHOLE: Rect = { x: 0, y: 0, width: 1, height: 1 };

/** The framing of the shot on screen, and the ways to change it. */
export interface FramingTools {
  shot: Shot;
  /** Its place among the shots, from 1. */
  number: number;
  framing: Framing;
  /** The window at the playhead, 0…1 of the picture. */
  window: Rect;
  margin: Margin;
  /** Canvas pixels per master pixel. */
  enlarged: number;
  fills: boolean;
  /** Moves from a framing by a distance in 0…1 of the picture; shown, and kept when `done`. */
  move(from: Framing, by: { x: number; y: number }, done: boolean): void;
  /** Zooms from a framing about a place in the picture; shown, and kept when `done`. */
  zoom(from: Framing, factor: number, pin: { x: number; y: number }, done: boolean): void;
  /** A small step that joins the one before it: arrow keys, wheel. */
  nudge(by: { x: number; y: number }): void;
  nudgeZoom(factor: number, pin: { x: number; y: number }): void;
}

export function useFraming(): FramingTools {
  const job = useJob();
  const frame = usePlayer((state) => state.frame);
  const draft = usePlayer((state) => state.draft);
  const source = useSource();
  const { id, edit } = job;
  const canvas = activeCanvas(useClip());
  const shot = shotAt(edit, source, frame);
  const settled = framingOf(edit, shot);
  const framing = draft?.shot === shot.id ? draft : settled;
  const live = shot.live ?? source.live;
  const size = liveSize(source.picture, live);
  const pane = canvas.width / canvas.height;
  const liveAspect = size.width / size.height;
  const aspects = useMemo<Aspects>(() => ({ pane, live: liveAspect }), [pane, liveAspect]);
  const fills = canvas.layout.panes[0]?.mode !== 'fit';
  const framed = fills ? windowAt(framing.keyframes, frame, pane, liveAspect) : WHOLE;
  // Gestures and numbers speak of the whole picture, framings of its live area.
  const inLive = (by: Point) => ({ x: by.x / live.width, y: by.y / live.height });
  const place = (at: Point) => inLive({ x: at.x - live.x, y: at.y - live.y });
  const show = useCallback(
    (next: Framing, done: boolean, joins?: string) => {
      if (done) dispatch(id, { type: 'set-framing', framing: next }, joins);
      setDraft(done ? null : next);
    },
    [id],
  );
  return {
    shot,
    number: shotsOf(edit, source).findIndex((one) => one.id === shot.id) + 1,
    framing,
    window: inPicture(framed, live),
    margin: marginOf(framed, size),
    enlarged: enlargement(
      framed,
      size,
      fills ? canvas.width : Math.min(canvas.width, canvas.height * liveAspect),
    ),
    fills,
    move: (from, by, done) => show(moved(from, inLive(by), aspects), done),
    zoom: (from, factor, pin, done) => show(zoomed(from, factor, place(pin), aspects), done),
    nudge: (by) => show(moved(settled, inLive(by), aspects), true, `nudge-${shot.id}`),
    nudgeZoom: (factor, pin) => show(zoomed(settled, factor, place(pin), aspects), true, `zoom-${shot.id}`),
  };
}
