import type { RateChange } from '../../job/retime';
import type { Repairs } from '../../master/repairs';
import type { Fix } from '../fix';

/** Gives a master the live area that was found for it. */
export const takeMasterEdges: Fix<{
  master: string;
  repairs: Repairs;
  /** Of the master, before the repair and after it. */
  rates: RateChange;
}> = {
  safe: true,
  label: () => 'Use the edges that were found',
  command: (values) => ({ type: 'set-repairs', ...values }),
};
