import { create } from 'zustand';
import { DEFAULT_FOLLOW_OPTIONS, type FollowOptions } from '@core/framing/following';
import { MAIN_TRACK } from '@core/layout/pane';

/** Scope of a framing's change: the whole shot, or the frame on screen and what follows. */
export type Mode = 'shot' | 'frame';
export type Panel = 'place' | 'motion' | 'follow' | 'turn' | 'layout' | 'copy';

interface BenchState {
  mode: Mode;
  /** The track whose window is being worked on. */
  track: string;
  panel: Panel;
  snaps: boolean;
  /** The next line that is drawn on the master becomes level. */
  levelling: boolean;
  /** The master is shown bare. */
  bare: boolean;
  /** A keyframe's frame to copy from. */
  copied: number | null;
  /** How following is to move, until the person says otherwise. */
  wishes: FollowOptions;
  /** The next box that is drawn on the master is followed. */
  boxing: boolean;
  /** Framings for which the person said whom to follow, by job, shot, track and owner. */
  chosen: readonly string[];
}

/** How the framing page is being worked with; none of it is part of the job. */
export const useFramingUi = create<BenchState>(() => ({
  mode: 'shot',
  track: MAIN_TRACK,
  panel: 'place',
  snaps: true,
  levelling: false,
  bare: false,
  copied: null,
  wishes: DEFAULT_FOLLOW_OPTIONS,
  boxing: false,
  chosen: [],
}));
