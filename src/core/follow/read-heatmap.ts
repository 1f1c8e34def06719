import type { PictureRect } from '../picture/size';
import { computeOverlap } from './track';

/** A picture as it lies in the square or rectangle that a model takes, with nothing beside it where it does not fill. */
export interface Letterbox {
  /** Width that the model takes, in samples. */
  width: number;
  height: number;
  /** Where the picture lies in it. */
  picture: { x: number; y: number; width: number; height: number };
}

/** Lays a picture into what a model takes, as large as it can be. @param aspect of the picture, width over height. */
export function computeLetterbox(
  aspect: number,
  { width, height }: { width: number; height: number },
): Letterbox {
  const across = Math.min(width, height * aspect);
  const down = across / aspect;
  return {
    ...{ width, height },
    picture: { x: (width - across) / 2, y: (height - down) / 2, width: across, height: down },
  };
}

/** A rectangle in samples of what the model took, as 0…1 of the picture. */
export const fromLetterbox = (
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
  { picture }: Letterbox,
): PictureRect => ({
  x: (x - picture.x) / picture.width,
  y: (y - picture.y) / picture.height,
  width: width / picture.width,
  height: height / picture.height,
});

/** Something that a model found. */
export interface FoundBox {
  /** The number of its class. */
  of: number;
  confidence: number;
  /** In samples of what the model took. */
  box: { x: number; y: number; width: number; height: number };
}

/** Maps of a detector that marks the middles of things: a score for each class, and the distances to the four sides. */
export interface Heatmap {
  scores: ArrayLike<number>;
  sides: ArrayLike<number>;
  across: number;
  down: number;
  classes: number;
  /** Samples of the picture for each place of the map. */
  stride: number;
}

/** The things of a heatmap: places whose score is the highest among their neighbours of the same class. */
export function readHeatmap(map: Heatmap, least: number): FoundBox[] {
  const { scores, sides, across, down, classes, stride } = map;
  const found: FoundBox[] = [];
  for (let i = 0; i < across * down * classes; i++) {
    const score = scores[i] as number;
    if (score < least || !isPeak(map, i, score)) continue;
    const of = i % classes;
    const cell = Math.floor(i / classes);
    const [x, y] = [(cell % across) * stride, Math.floor(cell / across) * stride];
    const [left, top, right, bottom] = [0, 1, 2, 3].map((side) => sides[cell * 4 + side] as number) as [
      ...[number, number, number, number],
    ];
    if (left + right <= 0 || top + bottom <= 0) continue;
    found.push({
      of,
      confidence: Math.min(1, score),
      box: { x: x - left, y: y - top, width: left + right, height: top + bottom },
    });
  }
  return found;
}

function isPeak({ scores, across, down, classes }: Heatmap, i: number, score: number): boolean {
  const of = i % classes;
  const cell = Math.floor(i / classes);
  const [x, y] = [cell % across, Math.floor(cell / across)];
  for (let dy = -1; dy <= 1; dy++) {
    for (let dx = -1; dx <= 1; dx++) {
      const [nx, ny] = [x + dx, y + dy];
      if (nx < 0 || ny < 0 || nx >= across || ny >= down) continue;
      if ((scores[(ny * across + nx) * classes + of] as number) > score) return false;
    }
  }
  return true;
}

/** Rows of a face detector over anchors: a score each, and the box as distances from the anchor. */
export interface AnchorRows {
  scores: ArrayLike<number>;
  /** Sixteen numbers a row, of which the first four are middle and size, in samples. */
  boxes: ArrayLike<number>;
}

/** The middles of a face detector's anchors, 0…1: so many for each place of maps of these strides. */
export function listAnchors(
  size: number,
  maps: readonly { stride: number; count: number }[],
): [number, number][] {
  return maps.flatMap(({ stride, count }) => {
    const cells = Math.ceil(size / stride);
    return Array.from({ length: cells * cells * count }, (_, i): [number, number] => {
      const cell = Math.floor(i / count);
      return [((cell % cells) + 0.5) / cells, (Math.floor(cell / cells) + 0.5) / cells];
    });
  });
}

/** The faces in rows over anchors, without those that lie on a surer one. */
export function readAnchors(
  { scores, boxes }: AnchorRows,
  anchors: readonly [number, number][],
  size: number,
  least: number,
): FoundBox[] {
  const found = anchors.flatMap(([ax, ay], i): FoundBox[] => {
    const confidence = 1 / (1 + Math.exp(-(scores[i] as number)));
    if (confidence < least) return [];
    const [dx, dy, width, height] = [0, 1, 2, 3].map((k) => boxes[i * 16 + k] as number) as [
      ...[number, number, number, number],
    ];
    const [x, y] = [ax * size + dx, ay * size + dy];
    return [{ of: 0, confidence, box: { x: x - width / 2, y: y - height / 2, width, height } }];
  });
  return distinctBoxes(found, 0.3);
}

/** Boxes without those that lie mostly on a surer one of the same class. @param most share of their union, 0…1. */
export function distinctBoxes(found: readonly FoundBox[], most: number): FoundBox[] {
  const kept: FoundBox[] = [];
  for (const next of [...found].sort((a, b) => b.confidence - a.confidence)) {
    const twice = kept.some((other) => other.of === next.of && computeOverlap(other.box, next.box) > most);
    if (!twice) kept.push(next);
  }
  return kept;
}
