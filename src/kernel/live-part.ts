import type { SampleReach } from './lanczos';
import type { PlanarPicture, PlaneShape, SampleWindow } from './planes';

/** Rounding errors of an edge, in samples. */
const NEAR = 1e-6;

/**
 * The samples of a plane's side that lie wholly in the live part; at least one.
 * @param luma samples of the picture's side. @param samples of the plane's.
 * @param lead luma samples that the first chroma sample lacks.
 */
export function computeReach(
  luma: number,
  samples: number,
  lead: 0 | 1 = 0,
  start = 0,
  length = luma,
): SampleReach {
  const [sub, before] = samples === luma ? [1, 0] : [2, lead];
  const first = start <= NEAR ? 0 : Math.min(Math.ceil((start + before) / sub - NEAR), samples - 1);
  const end = start + length;
  const last = end >= luma - NEAR ? samples - 1 : Math.floor((end + before) / sub + NEAR) - 1;
  return { first, last: Math.max(first, last) };
}

/** Rows of a plane that are drawn anew: they begin with a row of the first field. */
export interface Rows {
  first: number;
  count: number;
}

/** The rows of a plane that may be read, from the first field's on. */
export function evenRows({ height, live }: PlanarPicture, plane: PlaneShape): Rows {
  const { first, last } = computeReach(height, plane.height, 0, live?.y, live?.height);
  const even = first + (first % 2);
  return { first: Math.min(even, last), count: Math.max(1, last + 1 - even) };
}

/** The live part without the rows that no plane has anew. */
export function liveRows(
  { height, planes }: PlanarPicture,
  live: SampleWindow,
  rows: readonly Rows[],
): SampleWindow {
  const luma = (i: number, row: number) => ((planes[i] as PlaneShape).height === height ? row : row * 2);
  const top = Math.max(live.y, ...rows.map(({ first }, i) => luma(i, first)));
  const bottom = Math.min(live.y + live.height, ...rows.map(({ first, count }, i) => luma(i, first + count)));
  return { ...live, y: top, height: bottom - top };
}

/** A live part of a picture that is turned clockwise, and then mirrored. */
export function turnLive(
  { width, height }: PlanarPicture,
  live: SampleWindow,
  quarters: 0 | 1 | 2 | 3,
  mirrored: boolean,
): SampleWindow {
  const swap = quarters % 2 === 1;
  const x = [live.x, height - live.y - live.height, width - live.x - live.width, live.y][quarters] as number;
  const y = [live.y, live.x, height - live.y - live.height, width - live.x - live.width][quarters] as number;
  const size = swap ? { width: live.height, height: live.width } : { width: live.width, height: live.height };
  return { x: mirrored ? (swap ? height : width) - x - size.width : x, y, ...size };
}
