import type { z } from 'zod';
import type { Abilities } from '../../src/core/outlets/outlet-api';
import type { longVideosSchema } from '../../src/core/posting/accounts';
import { type HttpRoots, createHttpConnection } from '../posting/http-connection';
import type { OutletConnection } from '../posting/outlet-connection';

/** A long video of an outlet's stand-in, which clips may be linked to. */
export type StandInVideo = Omit<z.infer<typeof longVideosSchema>['videos'][number], 'address'> & {
  id: string;
};

/** Abilities of an outlet's stand-in that its rule sheet does not imply. */
export interface StandInTraits {
  categories: Abilities['categories'];
  /** It puts a clip up by itself at its time. */
  schedule: boolean;
  longVideos: readonly StandInVideo[];
}

/** Categories of the stand-ins that have some. */
export const CATEGORIES: Abilities['categories'] = ['Outdoors', 'How it is made', 'Places', 'Games'].map(
  (name) => ({
    id: name.toLowerCase().replaceAll(' ', '-'),
    name,
  }),
);

/** An outlet as this server knows it. Its limits are in its rule sheet, by which the app judges as well. */
export interface OutletDescriptor {
  /** The outlet of the rule sheet. */
  outlet: string;
  /** Opens the way to it: the client that speaks its interface. */
  openWay(roots: HttpRoots): OutletConnection;
  /** Null for an outlet without a stand-in: it is reached where the person who runs the server says that it is. */
  standIn: StandInTraits | null;
}

/** An outlet that keeps the contract of `docs/outlet-api.yaml`, with a stand-in that can do no more than it must. */
export const plainOutlet = (outlet: string): OutletDescriptor & { standIn: StandInTraits } => ({
  outlet,
  openWay: createHttpConnection,
  standIn: { categories: [], schedule: false, longVideos: [] },
});
