/** Tells whether a text is a web address, as the WHATWG's URL standard reads it. */
export function isWebAddress(text: string): boolean {
  return /^https?:\/\//i.test(text) && URL.canParse(text);
}
