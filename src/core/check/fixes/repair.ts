import type { Repairs } from '../../master/repairs';
import type { RateChange } from '../../job/retime';
import type { Fix } from '../fix';

/** Sets something right about a master. */
export const repair: Fix<{
  label: string;
  master: string;
  repairs: Repairs;
  /** Of the master, before the repair and after it. */
  rates: RateChange;
}> = {
  safe: false,
  label: ({ label }) => label,
  command: ({ master, repairs, rates }) => ({ type: 'set-repairs', master, repairs, rates }),
};
