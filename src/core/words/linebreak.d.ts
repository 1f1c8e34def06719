declare module 'linebreak' {
  /** Where lines of a text may break (UAX #14). */
  export default class LineBreaker {
    constructor(text: string);
    /** The next place, in UTF-16 units, or null at the end. */
    nextBreak(): { position: number; required?: boolean } | null;
  }
}
