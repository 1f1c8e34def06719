import { CATEGORIES, type OutletDescriptor, plainOutlet } from '../outlet';

/** The outlet of long videos. */
export const longshelf: OutletDescriptor = {
  ...plainOutlet('longshelf'),
  standIn: {
    schedule: false,
    categories: CATEGORIES,
    longVideos: [
      { id: 'kite-day-whole', title: 'Kite Day at Windle Bay, the whole day', seconds: 2714 },
      { id: 'first-kite', title: 'How to build a first kite', seconds: 913 },
      { id: 'line-and-wind', title: 'Line, wind and knots', seconds: 1402 },
    ],
  },
};
