import { readFileSync } from 'node:fs';
import { type PostWords, postWordsSchema } from '../src/core/outlets/post-form';
import { SHIPPED_SHEETS } from '../src/core/outlets/shipped';
import { makeClip } from './make-clip';

/** A clip that an outlet's stand-in takes, and words for it. */
export function goodPost(outlet: string): { clip: Uint8Array<ArrayBuffer>; words: PostWords } {
  const { placements } = SHIPPED_SHEETS.find((sheet) => sheet.outlet === outlet)!;
  const placement = placements.find(({ sizes }) => sizes.kind === 'one') ?? placements[0]!;
  const size = placement.sizes.kind === 'one' ? placement.sizes.size : { width: 1920, height: 1080 };
  const seconds = Math.max(1, Math.ceil(placement.length.least ?? 1));
  const clip = makeClip(`${outlet}.mp4`, { size: `${size.width}x${size.height}`, seconds, channels: 2 });
  const words = {
    ...{ placement: placement.id, title: 'A kite', description: 'Wind and sea', tags: ['upright'] },
    ...{
      audience: placement.audiences.includes('public') ? 'public' : placement.audiences[0],
      forChildren: false,
      longVideo: placement.longVideo === 'none' ? null : 'https://longshelf.example/kites',
    },
  };
  return { clip: new Uint8Array(readFileSync(clip)), words: postWordsSchema.parse(words) };
}
