import type { Boundary } from '../../cut/shots';
import type { Shot } from '../../cut/shot';
import type { Fix } from '../fix';

/** Gives shots the live areas that were found for each of them. */
export const takeShotEdges: Fix<{
  master: string;
  old: readonly Shot[];
  boundaries: readonly Boundary[];
  /** Length of the master. */
  frames: number;
}> = {
  safe: true,
  label: () => 'Use the edges that were found',
  command: (values) => ({ type: 'set-shots', act: 'edges', ...values }),
};
