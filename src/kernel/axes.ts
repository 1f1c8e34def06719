import type { SampleReach } from './lanczos';
import type { PlanarPicture, PlaneShape } from './planes';

/** How a source sample's chroma lies against luma along one axis: `sub` luma samples a chroma sample. */
export interface Siting {
  sub: 1 | 2;
  /** Position of chroma sample 0 in luma samples: 0 is co-sited with the first, 0.5 between the first two. */
  offset: number;
}

/** Axis of a plane: output sample k sits at source sample origin + k · step. */
export interface Axis {
  origin: number;
  step: number;
}

/** Both axes of a plane, and the samples of each that may be read. */
export interface Axes {
  across: Axis;
  down: Axis;
  reach: { across: SampleReach; down: SampleReach };
}

/** Maps output samples to source samples of a plane, through luma coordinates in which sample i spans i…i+1. */
export function createAxis(windowStart: number, lumaStep: number, from: Siting, to: Siting): Axis {
  const centre = windowStart + (to.offset + 0.5) * lumaStep;
  return { origin: (centre - 0.5 - from.offset) / from.sub, step: (to.sub * lumaStep) / from.sub };
}

/** Chroma is left-sited; after a quarter turn what was left is up or down, and is taken as centred. */
export function sitingAcross(picture: PlanarPicture, plane: PlaneShape, index: number): Siting {
  if (index === 0 || plane.width === picture.width) return { sub: 1, offset: 0 };
  return { sub: 2, offset: (picture.siting === 'left' ? 0 : 0.5) - (picture.lead?.across ?? 0) };
}

/** Chroma rows lie between two luma rows. */
export function sitingDown(picture: PlanarPicture, plane: PlaneShape, index: number): Siting {
  return index === 0 || plane.height === picture.height
    ? { sub: 1, offset: 0 }
    : { sub: 2, offset: 0.5 - (picture.lead?.down ?? 0) };
}
