import { judgeRequiredTag } from '../../outlets/limits/tags';
import { outcome, postRule } from '../rule';

interface Tags {
  /** With their marks. */
  tags: string;
  required: string;
}
const figures = ({ tags, required }: Tags): string => `${tags}; needs ${required}`;

/** The tag that makes the outlet treat the clip as what the placement is for. */
export const tagRule = postRule({
  name: 'Required tag',
  reads: ['words', 'target'],
  outlet: true,
  outcomes: {
    'none-required': outcome<{ tags: string }>(
      (_, { label }) => `${label} requires no tag.`,
      ({ tags }) => tags,
    ),
    present: outcome<Tags>(({ required }) => `${required} is among the tags.`, figures),
    missing: outcome<Tags>(({ required }, { label }) => `${label} needs the tag ${required} here.`, figures),
    'missing-full': outcome<Tags>(
      ({ required }, { label }) =>
        `${label} needs the tag ${required} here, and takes no more tags. ` + 'Remove one, then add it.',
      figures,
    ),
  },
  check({ words, target }) {
    const required = target.placement.words.tags.required;
    const tags = words.tags.map((tag) => `#${tag}`).join(' ') || 'no tags';
    if (required === null) return { severity: 'pass', code: 'none-required', values: { tags } };
    const values = { tags, required: `#${required}` };
    if (!judgeRequiredTag(words.tags, target.placement)) {
      return { severity: 'pass', code: 'present', values };
    }
    // It would be one too many: which of them goes is the person's choice.
    if (words.tags.length >= target.placement.words.tags.most)
      return { severity: 'stop', code: 'missing-full', values };
    const fix = {
      fix: 'add-tag',
      values: { tag: required, tags: words.tags, outlet: target.sheet.outlet },
    } as const;
    return { severity: 'stop', code: 'missing', values, fix };
  },
});
