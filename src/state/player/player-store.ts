import { create } from 'zustand';
import type { Framing } from '@core/framing/framing';
import { applyCommand, type Owner } from '@core/job/commands/commands';
import type { Job } from '@core/job/job';
import type { Trouble } from '@core/trouble/trouble';
import type { Quality } from '@media/play/player-protocol';

interface PlayerState {
  /** The job on the player, or null. */
  jobId: string | null;
  /** The master whose frame is wanted on screen, and the frame; while playing, the one shown. */
  master: string;
  frame: number;
  /** The frame whose picture is on screen, or null before the first. */
  shown: number | null;
  playing: boolean;
  /** While playing a cut, which of its ranges is on screen. */
  range: number | null;
  /** How finely it plays, and whether that is chosen by itself. */
  quality: Quality;
  wish: Quality | 'auto';
  trouble: Trouble | null;
  /** Framings being dragged, not yet a step of the job. */
  draft: Draft | null;
}

/** Framings that are shown but not kept yet, and whose they are. */
export interface Draft {
  framings: Framing[];
  owner: Owner;
}

/** A player without a job. */
export const NO_JOB = {
  jobId: null,
  master: '',
  frame: 0,
  shown: null,
  playing: false,
  range: null,
  quality: 'full',
  trouble: null,
  draft: null,
} as const;

/** The state of the page's player, for the interface to watch. */
export const usePlayer = create<PlayerState>(() => ({ ...NO_JOB, wish: 'auto' }));

/** Returns a job as it would be with a draft of its framings. */
export function withDraft(job: Job, draft: Draft | null): Job {
  if (!draft) return job;
  return { ...job, edit: applyCommand(job.edit, { type: 'set-framings', act: 'move', ...draft }) };
}
