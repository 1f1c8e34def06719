/** Families that a person may choose, by what they are like. All have open licences; `docs/dependencies.md` names them. */
export const FAMILIES = {
  plain: { label: 'Plain', name: 'Source Sans 3' },
  condensed: { label: 'Condensed', name: 'Fira Sans Condensed' },
  serif: { label: 'Serif', name: 'EB Garamond' },
  slab: { label: 'Slab', name: 'Roboto Slab' },
  hand: { label: 'Handwritten', name: 'Caveat' },
  wide: { label: 'Wide', name: 'Unbounded' },
  reading: { label: 'For reading', name: 'Andika' },
  mono: { label: 'Monospaced', name: 'Fira Mono' },
} as const;

/** Families that help out where the chosen one lacks a character, in this order. */
const HELPERS = ['arabic', 'hebrew', 'devanagari', 'thai', 'japanese', 'plain'] as const;
/** The family that draws what is meant as an emoji. */
export const EMOJI = 'emoji';

/** A person's own fonts have names of this form. */
const OWN = /^own-[0-9a-f]{16}$/;
export const ownFamily = (hash: string): string => `own-${hash}`;
/** The hash in such a name: how the SHA-256 of its file begins, in hexadecimal. */
export const ownHash = (family: string): string => family.slice('own-'.length);
export const isOwnFamily = (family: string): boolean => OWN.test(family);

/** The families that are asked for a character one after another. */
export const listFallbackFamilies = (family: string): string[] => [
  family,
  ...HELPERS.filter((helper) => helper !== family),
  EMOJI,
];
