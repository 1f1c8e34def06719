import { commonfold } from './commonfold/outlet';
import { longshelf } from './longshelf/outlet';
import { type OutletDescriptor, plainOutlet } from './outlet';

/** Outlets that are more than plain. */
const DESCRIBED: readonly OutletDescriptor[] = [commonfold, longshelf];

/** Finds the descriptor of an outlet; one that is not listed is a plain outlet. @param outlet id of its rule sheet. */
export const describeOutlet = (outlet: string): OutletDescriptor =>
  DESCRIBED.find((one) => one.outlet === outlet) ?? plainOutlet(outlet);
