/** Values that the words of each problem of a master need. */
export interface ProblemValues {
  'pixel-aspect': { aspect: string; width: number; height: number; stored: string };
  /** Degrees clockwise, as it is shown and as the file says. */
  rotation: { degrees: number; flagged: number };
  flip: object;
  /** Sizes in square pixels, and how sure the pass is, in percent. */
  bars: { live: string; whole: string; sure: number };
  'shot-bars': { count: number };
  /** Null where the file does not tell. */
  range: { range: 'full' | 'limited' | null };
  /** By its name in the WebCodecs specification, or null where the file does not tell. */
  matrix: { matrix: string | null; likely: string };
  /** Frames a second, and frames. */
  'varying-rate': {
    least: string;
    mean: string;
    greatest: string;
    rate: string;
    repeated: number;
    dropped: number;
  };
  /** Percent of moving frames; which field comes first, or null where too little moves to tell. */
  interlace: { share: number; order: 'top' | 'bottom' | null };
  upright: { shape: 'tall' | 'square' };
  small: { canvas: string; percent: number; width: number; height: number; size: string };
  /** dBTP. */
  loud: { peak: string; limit: number };
}
export type ProblemCode = keyof ProblemValues;
