/** Whether a text is an address on the web, as the WHATWG's URL standard reads it. */
export function isWebAddress(text: string): boolean {
  return /^https?:\/\//i.test(text) && URL.canParse(text);
}
