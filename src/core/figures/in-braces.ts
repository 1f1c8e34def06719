const IN_BRACES = /\{([^{}]*)\}/g;

/** Finds what is wrong with a text that has parts in braces, such as `{clip}`; null for nothing. */
export function bracesProblem(text: string, parts: Readonly<Record<string, unknown>>): string | null {
  const unknown = [...text.matchAll(IN_BRACES)]
    .map(([, name = '']) => name)
    .find((name) => !Object.hasOwn(parts, name));
  if (unknown !== undefined)
    return `{${unknown}} is none of ${Object.keys(parts)
      .map((name) => `{${name}}`)
      .join(', ')}.`;
  return /[{}]/.test(text.replace(IN_BRACES, '')) ? 'A brace is not closed.' : null;
}

/** A text with its parts in braces filled in; one that is not known is left out. */
export const fillBraces = <Name extends string>(
  text: string,
  parts: Readonly<Record<Name, () => string>>,
): string =>
  text.replace(IN_BRACES, (_, name: string) => (Object.hasOwn(parts, name) ? parts[name as Name]() : ''));
