import { z } from 'zod';
import { isWebAddress } from '../web-address';
import { capitalize, listOptions } from './field';
import { declareLimit } from './limit';

const LINKS = ['none', 'welcome', 'needed'] as const;

/** Judges a link to the long video. Spaces around it do not count. */
export function judgeLongVideo(
  address: string,
  { longVideo }: { longVideo: (typeof LINKS)[number] },
): 'missing' | 'no-address' | null {
  if (longVideo === 'none') return null;
  if (address.trim() === '') return longVideo === 'needed' ? 'missing' : null;
  return isWebAddress(address.trim()) ? null : 'no-address';
}

/** Limit on the link from a clip to the long video that it came from. */
export const longVideoLimit = declareLimit({
  name: 'long-video',
  shape: { longVideo: z.enum(LINKS) },
  plain: { longVideo: 'none' },
  section: 'Post',
  fields: [
    {
      path: 'longVideo',
      label: 'Link to a long video',
      as: { kind: 'one', options: listOptions(LINKS, capitalize) },
    },
  ],
  refusePost({ longVideo }, placement) {
    const broken = judgeLongVideo(longVideo ?? '', placement);
    if (broken === 'missing') return 'The link to the long video is missing.';
    return broken && 'The link to the long video is not a web address.';
  },
});
