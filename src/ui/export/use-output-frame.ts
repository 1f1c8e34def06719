import { toOutputFrame } from '@core/words/spans';
import { usePlayer } from '@state/player';
import { useTimeline } from '../words/use-words';

/** The clip's frame that the player stands at; its first where the player stands elsewhere. */
export function useOutputFrame(): number {
  const timeline = useTimeline();
  const master = usePlayer((state) => state.master);
  const frame = usePlayer((state) => state.frame);
  return toOutputFrame({ master, frame }, timeline) ?? 0;
}
