/** What the tests use of smpte-timecode, which ships no types that say how it is exported. */
declare module 'smpte-timecode' {
  export default class Timecode {
    constructor(frames: number, rate: number, dropFrame: boolean);
    toString(): string;
  }
}
