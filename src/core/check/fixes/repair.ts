import type { Repairs } from '../../master/repairs';
import type { FrameRate } from '../../time/frame-rate';
import type { Fix } from '../fix';

/** Sets something right about a master. */
export const repair: Fix<{
  label: string;
  master: string;
  repairs: Repairs;
  /** Of the master, before the repair and after it. */
  rates: { before: FrameRate; after: FrameRate };
}> = {
  safe: false,
  label: ({ label }) => label,
  command: ({ master, repairs, rates }) => ({ type: 'set-repairs', master, repairs, rates }),
};
