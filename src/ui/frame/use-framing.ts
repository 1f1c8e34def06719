import { useCallback, useMemo } from 'react';
import { type Framing, windowAt } from '@core/framing/framing';
import { type Aspects, enlargement, type Margin, marginOf, moved, zoomed } from '@core/framing/moves';
import { activeCanvas, framingOf, type Shot, shotAt } from '@core/job/job';
import type { Rect } from '@core/picture/size';
import { dispatch } from '@state/jobs';
import { setDraft, usePlayer } from '@state/player';
import { useJob } from '../job/job-context';

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
  const { id, edit, master } = job;
  const canvas = activeCanvas(edit);
  const shot = shotAt(edit, frame);
  const settled = framingOf(edit, shot);
  const framing = draft?.shot === shot.id ? draft : settled;
  const { picture } = master;
  const pane = canvas.width / canvas.height;
  const live = picture.width / picture.height;
  const aspects = useMemo<Aspects>(() => ({ pane, live }), [pane, live]);
  const fills = canvas.layout.panes[0]?.mode !== 'fit';
  const window = fills ? windowAt(framing.keyframes, frame, pane, live) : { x: 0, y: 0, width: 1, height: 1 };
  const show = useCallback(
    (next: Framing, done: boolean, joins?: string) => {
      if (done) dispatch(id, { type: 'set-framing', framing: next }, joins);
      setDraft(done ? null : next);
    },
    [id],
  );
  return {
    shot,
    number: edit.shots.indexOf(shot) + 1,
    framing,
    window,
    margin: marginOf(window, picture),
    enlarged: enlargement(
      window,
      picture,
      fills ? canvas.width : Math.min(canvas.width, canvas.height * live),
    ),
    fills,
    move: (from, by, done) => show(moved(from, by, aspects), done),
    zoom: (from, factor, pin, done) => show(zoomed(from, factor, pin, aspects), done),
    nudge: (by) => show(moved(settled, by, aspects), true, `nudge-${shot.id}`),
    nudgeZoom: (factor, pin) => show(zoomed(settled, factor, pin, aspects), true, `zoom-${shot.id}`),
  };
}
