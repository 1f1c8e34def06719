import { Player } from '../src/media/play/player';
import type { Source } from '../src/core/master/source';

/** A player whose pictures are only waited for. */
export interface DrawnPlayer {
  player: Player;
  /** Resolves when the next frame is drawn. */
  drawn(): Promise<void>;
}

/** A player of one source. */
export function drawnPlayer(source: Source): DrawnPlayer {
  let drawn: () => void = () => undefined;
  const player = new Player([source], {
    onFrame: ({ pictures }) => {
      for (const picture of Object.values(pictures)) picture?.close();
      drawn();
    },
    onQuality: () => undefined,
    onEnded: () => undefined,
    onTrouble: (trouble) => console.error(trouble),
  });
  return { player, drawn: () => new Promise((resolve) => (drawn = resolve)) };
}
