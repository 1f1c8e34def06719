import type { Command } from '../../job/commands';
import type { Rule } from '../finding';

/** The tag that makes the outlet treat the clip as what the placement is for. */
export const tagRule: Rule = {
  id: 'tag',
  outlet: true,
  check({ clip, target }) {
    const required = target.placement.requiredTag;
    const { words } = clip;
    const base = {
      rule: 'tag',
      measured: words.tags.map((tag) => `#${tag}`).join(' ') || 'no tags',
      limit: required ? `#${required}` : null,
      unit: '',
      holds: 'post',
    } as const;
    if (!required) return { ...base, severity: 'pass', code: 'none-required' };
    if (words.tags.some((tag) => tag.toLowerCase() === required))
      return { ...base, severity: 'pass', code: 'present' };
    const command: Command = { type: 'set-words', words: { ...words, tags: [required, ...words.tags] } };
    return { ...base, severity: 'stop', code: 'missing', fix: { label: `Add #${required}`, command } };
  },
};
