import { toMasterFrame, toOutputFrame } from '@core/words/spans';
import { player, type Speed, usePlayer } from '@state/player';
import { useTimeline } from './use-words';
import { useClip } from '../job/job-context';

/** The playhead in the clip's own frames. */
export interface ClipTime {
  /** The output frame on screen; null where the cut leaves out what is on screen. */
  frame: number | null;
  /** Output frames of the clip, without its card. */
  frames: number;
  show(frame: number): void;
  /** Plays on from an output frame to the end of the clip. */
  playFrom(frame: number, speed?: Speed): void;
}

/** Where the playhead is in the clip, and how to move it there. */
export function useClipTime(): ClipTime {
  const timeline = useTimeline();
  const { cut } = useClip();
  const master = usePlayer((state) => state.master);
  const at = usePlayer((state) => state.frame);
  const frames = timeline.starts[cut.length] ?? 0;
  return {
    frame: toOutputFrame({ master, frame: at }, timeline),
    frames,
    show(frame) {
      const place = toMasterFrame(Math.min(Math.max(0, frame), frames - 1), timeline);
      if (place) player.showFrame(place.frame, place.master);
    },
    playFrom(frame, speed = 1) {
      const index = Math.max(
        0,
        timeline.starts.findIndex((start, i) => frame >= start && frame < (timeline.starts[i + 1] ?? 0)),
      );
      const place = toMasterFrame(frame, timeline);
      const [first, ...rest] = cut.slice(index);
      if (first && place) player.playCut([{ ...first, in: place.frame }, ...rest], speed);
    },
  };
}
