import type { Placement } from './placement';

/** A placement that asks for as little as one can: what others begin with. */
export const PLAIN_PLACEMENT: Placement = {
  id: 'clip',
  name: 'Clip',
  sizes: { kind: 'one', size: { width: 1080, height: 1920 } },
  bars: 'discouraged',
  length: { least: null, most: 86_400, best: null },
  mostBytes: 1e12,
  containers: ['mp4'],
  video: {
    codecs: ['avc'],
    profiles: ['baseline', 'main', 'high'],
    mostLevel: 62,
    mostBits: null,
    mostRate: { num: 240, den: 1 },
    interlaced: false,
    oblongPixels: false,
  },
  audio: {
    required: false,
    codecs: ['aac'],
    sampleRates: [44_100, 48_000],
    leastChannels: 1,
    mostChannels: 8,
    leastBits: null,
    loudness: null,
    mostPeak: null,
  },
  words: {
    title: 1000,
    description: { most: 10_000, seen: 10_000 },
    tags: { most: 100, characters: 100, required: null },
  },
  audiences: ['private', 'unlisted', 'public'],
  muted: false,
  childrenStatement: false,
  longVideo: 'none',
  zones: { phone: [], tablet: [], desk: [] },
  cover: null,
  ladder: [],
};
