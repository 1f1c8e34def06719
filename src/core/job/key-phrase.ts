import type { Words } from './clip';

const plain = (text: string): string => text.normalize('NFKC').toLowerCase().replace(/\s+/g, ' ').trim();

/**
 * Tells whether a title begins with its key phrase: people find a clip by its first words, and titles are cut
 * off at their ends. Common practice, no source.
 */
export const hasLeadingKeyPhrase = (title: string, keyPhrase: string): boolean =>
  plain(title).startsWith(plain(keyPhrase));

/** A title with its key phrase in front, said once. */
export function leadWithKeyPhrase(title: string, keyPhrase: string): string {
  const phrase = keyPhrase.trim();
  if (phrase === '' || hasLeadingKeyPhrase(title, phrase)) return title;
  const at = title.toLowerCase().indexOf(phrase.toLowerCase());
  const rest = at < 0 ? title : `${title.slice(0, at)}${title.slice(at + phrase.length)}`;
  const tidy = rest.replace(/\s+/g, ' ').replace(/^[\s,;:–—-]+|[\s,;:–—-]+$/g, '');
  return tidy === '' ? phrase : `${phrase}: ${tidy}`;
}

/** Words with another key phrase, or without one. */
export function withKeyPhrase(words: Words, keyPhrase: string): Words {
  const { keyPhrase: _old, ...rest } = words;
  return keyPhrase === '' ? rest : { ...rest, keyPhrase };
}
