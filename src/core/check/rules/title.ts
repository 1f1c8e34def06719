import type { Rule } from '../finding';

/** A title, and not longer than the outlet shows. */
export const titleRule: Rule = {
  id: 'title',
  outlet: true,
  check({ clip, target }) {
    const limit = target.placement.titleCharacters;
    const title = clip.words.title.trim();
    const measured = [...title].length;
    const base = { rule: 'title', measured, limit, unit: 'characters', holds: 'post' } as const;
    if (measured === 0) return { ...base, severity: 'stop', code: 'missing' };
    if (measured <= limit) return { ...base, severity: 'pass', code: 'within' };
    const words = { ...clip.words, title: [...title].slice(0, limit).join('').trim() };
    return {
      ...base,
      severity: 'stop',
      code: 'over',
      fix: { label: `Shorten to ${limit} characters`, command: { type: 'set-words', words } },
    };
  },
};
