/** Face of a family. */
export interface Face {
  family: string;
  weight: number;
}

/** Tells how wide text comes out. Whoever draws also measures, so that what is laid out is what is drawn. */
export interface Measure {
  /** Of text in one direction that one face draws; a share of the size. */
  advance(text: string, face: Face, rightToLeft: boolean): number;
}
