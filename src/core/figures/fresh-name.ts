/** The first of `word-1`, `word-2` and so on that is not taken. */
export function createName(word: string, taken: ReadonlySet<string>): string {
  for (let n = 1; ; n++) if (!taken.has(`${word}-${n}`)) return `${word}-${n}`;
}
