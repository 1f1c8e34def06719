import { judgeLongVideo } from '../../outlets/limits/long-video';
import { postRule, outcome } from '../rule';

const nothing = () => 'no link';
const link = ({ link }: { link: string }): string => link;

/** The link to the long video that the clip came from. */
export const longVideoRule = postRule({
  name: 'Link to the long video',
  reads: ['words', 'target'],
  outlet: true,
  outcomes: {
    'not-taken': outcome<object>((_, { label }) => `${label} takes no link.`, nothing),
    needed: outcome<object>(
      (_, { label }) => `${label} wants a link to the long video. Give it on the post page.`,
      nothing,
    ),
    welcome: outcome<object>(
      (_, { label }) => `${label} can link to the long video; there is no link yet.`,
      nothing,
    ),
    'no-address': outcome<{ link: string }>(
      ({ link }) => `"${link}" is not a web address: it must begin with https:// or http://.`,
      link,
    ),
    present: outcome<{ link: string }>(({ link }) => `The clip links to ${link}.`, link),
  },
  check({ words, target }) {
    const { longVideo } = target.placement;
    const link = words.longVideo?.trim() ?? '';
    if (longVideo === 'none') return { severity: 'pass', code: 'not-taken', values: {} };
    const broken = judgeLongVideo(link, target.placement);
    if (broken === 'no-address') return { severity: 'stop', code: 'no-address', values: { link } };
    if (link !== '') return { severity: 'pass', code: 'present', values: { link } };
    return broken === 'missing'
      ? { severity: 'stop', code: 'needed', values: {} }
      : { severity: 'note', code: 'welcome', values: {} };
  },
});
