import { CATEGORIES, type OutletDescriptor, plainOutlet } from '../outlet';

/** Keeps the time of a post itself; some long videos are there too. */
export const commonfold: OutletDescriptor = {
  ...plainOutlet('commonfold'),
  standIn: {
    schedule: true,
    categories: CATEGORIES,
    longVideos: [{ id: 'kite-night', title: 'Kite Night at Windle Bay, in full', seconds: 1985 }],
  },
};
