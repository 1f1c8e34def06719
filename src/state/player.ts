import { create } from 'zustand';
import type { Framing } from '@core/framing/framing';
import { applyCommand } from '@core/job/commands';
import { activeCanvas, type Job } from '@core/job/job';
import type { Size } from '@core/picture/size';
import { planOf, type RenderPlan } from '@core/render/plan';
import type { Trouble } from '@core/trouble/trouble';
import { Player } from '@media/player';
import type { View } from '@media/player-protocol';

interface PlayerState {
  /** The job on the player, or null. */
  jobId: string | null;
  /** The master frame wanted on screen; while playing, the one shown. */
  frame: number;
  /** The master frame whose picture is on screen, or null before the first. */
  shown: number | null;
  playing: boolean;
  trouble: Trouble | null;
  /** A framing being dragged, not yet a step of the job. */
  draft: Framing | null;
}

export const usePlayer = create<PlayerState>(() => ({
  jobId: null,
  frame: 0,
  shown: null,
  playing: false,
  trouble: null,
  draft: null,
}));

let player: Player | null = null;
let current: Job | null = null;
let sizes: Partial<Record<View, Size>> = {};
const latest: Partial<Record<View, ImageBitmap>> = {};
const painters: Partial<Record<View, (picture: ImageBitmap) => void>> = {};

/** The plan of the whole master on a job's canvas: output frame n is master frame n. */
export function previewPlan(job: Job, draft: Framing | null): RenderPlan {
  const edit = draft ? applyCommand(job.edit, { type: 'set-framing', framing: draft }, job.master) : job.edit;
  const cut = [{ in: 0, out: job.master.frames }];
  return planOf(activeCanvas(edit), { ...edit, cut, live: job.master.picture });
}

/** Puts a job on the player, or hands it a change of the job that is on it. */
export function playJob(job: Job): void {
  if (usePlayer.getState().jobId !== job.id) {
    leavePlayer();
    usePlayer.setState({ jobId: job.id, frame: job.edit.cut[0]?.in ?? 0 });
  }
  current = job;
  player ??= openPlayer(job);
  player.setPlan(previewPlan(job, usePlayer.getState().draft));
}

function openPlayer(job: Job): Player {
  const opened = new Player(job.master, {
    onFrame(frame, pictures) {
      usePlayer.setState((state) => ({ shown: frame, ...(state.playing ? { frame } : {}) }));
      for (const [view, picture] of Object.entries(pictures) as [View, ImageBitmap][]) {
        latest[view]?.close();
        latest[view] = picture;
        painters[view]?.(picture);
      }
    },
    onEnded: () => usePlayer.setState({ playing: false }),
    onTrouble: (trouble) => usePlayer.setState({ trouble, playing: false }),
  });
  opened.setViews(sizes);
  opened.show(usePlayer.getState().frame);
  return opened;
}

/** Ends the player: the job was left, or deleted, or its bytes came back. */
export function leavePlayer(): void {
  player?.close();
  player = null;
  current = null;
  for (const view of ['master', 'canvas'] as const) {
    latest[view]?.close();
    delete latest[view];
  }
  usePlayer.setState({ jobId: null, frame: 0, shown: null, playing: false, trouble: null, draft: null });
}

/** Puts a view on screen. `paint` must draw at once: the picture is closed when the next comes. */
export function mountView(view: View, size: Size, paint: (picture: ImageBitmap) => void): () => void {
  painters[view] = paint;
  sizes = { ...sizes, [view]: size };
  player?.setViews(sizes);
  const known = latest[view];
  if (known) paint(known);
  return () => {
    if (painters[view] !== paint) return;
    delete painters[view];
    const { [view]: _gone, ...rest } = sizes;
    sizes = rest;
    player?.setViews(sizes);
  };
}

/** Shows a master frame; playing stops. */
export function showFrame(frame: number): void {
  if (!current) return;
  const held = Math.max(0, Math.min(frame, current.master.frames - 1));
  usePlayer.setState({ frame: held, playing: false });
  player?.show(held);
}

export const stepFrames = (by: number): void => showFrame(usePlayer.getState().frame + by);

/** Plays from the frame on screen to the out point, or from the in point when it is there already; or pauses. */
export function togglePlay(): void {
  const { playing, frame } = usePlayer.getState();
  if (!current || !player) return;
  if (playing) {
    player.pause();
    usePlayer.setState({ playing: false });
    return;
  }
  const { in: first, out } = current.edit.cut[0] ?? { in: 0, out: current.master.frames };
  const inside = frame >= first && frame < out - 1;
  const from = inside ? frame : first;
  usePlayer.setState({ playing: true, frame: from });
  player.play(from, out);
}

/** Shows a framing while it is being dragged; null goes back to the job's own. */
export function setDraft(draft: Framing | null): void {
  usePlayer.setState({ draft });
  if (current) player?.setPlan(previewPlan(current, draft));
}
