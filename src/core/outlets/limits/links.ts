import { boundedCount } from '../../figures/bounded';
import { optionalNumberField } from './field';
import { declareLimit } from './limit';

/** An address on the web as people write it, with or without its protocol (common practice, no source). */
const LINK = /(?:https?:\/\/|\bwww\.)[^\s<>"]+/gi;

/** Counts the addresses in a text. */
export const countLinks = (text: string): number => text.match(LINK)?.length ?? 0;

/** Limit on links in a description: outlets take a post with many for an advertisement. */
export const linksLimit = declareLimit({
  name: 'links',
  shape: { maxLinks: boundedCount().nullable().default(null) },
  plain: { maxLinks: null },
  section: 'Words',
  fields: [{ path: 'maxLinks', label: 'Most links in the description', as: optionalNumberField('') }],
  isPlainlyChecked: true,
  refusePost({ description }, { maxLinks }) {
    const links = countLinks(description);
    return maxLinks !== null && links > maxLinks
      ? `The description has ${links} ${links === 1 ? 'link' : 'links'}; ${maxLinks === 0 ? 'none is taken' : `at most ${maxLinks} are taken`}.`
      : null;
  },
});
