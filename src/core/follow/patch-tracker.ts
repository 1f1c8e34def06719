import type { Grey } from '../pass/grey';
import type { Rect } from '../picture/size';

/** A patch is compared by so many samples across and down. */
const SIDE = 20;
/** A patch is looked for this far from where it is expected, in its own sizes, and at these scales. */
const REACH = 0.9;
const SCALES = [0.94, 1, 1.06];
/** Correlation from which it is found, and found again once it was lost; and as shares of what it was lately. */
const FOUND = { least: 0.5, share: 0.7 };
const FOUND_AGAIN = { least: 0.6, share: 0.82 };
/** How much of the latest correlation counts as what it was lately. */
const LATELY = 0.2;
/** Correlation from which what it looks like now is learnt, and how much of that. */
const LEARNS_FROM = 0.8;
const LEARNS = 0.08;
/** How much the speed takes from each step. */
const TURNS = 0.6;
/** The least side of a patch, in samples of the picture. */
const MIN_SIDE = 5;

/** Where a patch is in a picture. */
export interface PatchPlace {
  /** In samples of the picture. */
  box: Rect;
  /** Correlation with what it looks like, −1…1. */
  score: number;
  /** True when it is in the picture: a lost one stays where it was last. */
  found: boolean;
}

type Patch = Float32Array;

/**
 * Follows whatever lies in a box by what it looks like: normalised cross-correlation over places and scales, with the
 * first picture and with a slowly learnt one. It knows when it has lost it, and then looks everywhere.
 */
export class PatchTracker {
  private readonly first: Patch;
  private learnt: Patch;
  private box: Rect;
  private speed = { x: 0, y: 0 };
  private lost = false;
  private usual = 1;

  /** @param box in samples of the picture. */
  constructor(picture: Grey, box: Rect) {
    const width = Math.max(MIN_SIDE, box.width);
    const height = Math.max(MIN_SIDE, box.height);
    this.box = { x: box.x + (box.width - width) / 2, y: box.y + (box.height - height) / 2, width, height };
    this.first = normalisePatch(cutPatch(picture, this.box));
    this.learnt = this.first;
  }

  /** Where the patch is in the next picture. */
  next(picture: Grey): PatchPlace {
    const best = this.lost ? this.anywhere(picture) : this.near(picture);
    const { least, share } = this.lost ? FOUND_AGAIN : FOUND;
    const found = best.score >= Math.max(least, share * this.usual);
    this.lost = !found;
    if (!found) {
      this.speed = { x: 0, y: 0 };
      return { box: this.box, score: best.score, found };
    }
    const middle = ({ x, y, width, height }: Rect) => ({ x: x + width / 2, y: y + height / 2 });
    const [from, to] = [middle(this.box), middle(best.box)];
    this.speed = {
      x: this.speed.x * (1 - TURNS) + (to.x - from.x) * TURNS,
      y: this.speed.y * (1 - TURNS) + (to.y - from.y) * TURNS,
    };
    this.usual += (best.score - this.usual) * LATELY;
    this.box = best.box;
    if (best.score >= LEARNS_FROM) this.learn(picture);
    return { ...best, found };
  }

  private near(picture: Grey): { box: Rect; score: number } {
    const { width, height } = this.box;
    const start = { ...this.box, x: this.box.x + this.speed.x, y: this.box.y + this.speed.y };
    const step = Math.max(1, Math.min(width, height) / 10);
    const reach = { x: width * REACH + Math.abs(this.speed.x), y: height * REACH + Math.abs(this.speed.y) };
    let best = this.best(picture, [start]);
    best = this.searched(picture, start, reach, step, best);
    const scaled = SCALES.map((scale) => scaleRect(best.box, scale));
    best = this.best(picture, scaled, best);
    return this.searched(picture, best.box, { x: step, y: step }, step / 3, best);
  }

  private anywhere(picture: Grey): { box: Rect; score: number } {
    const { width, height } = this.box;
    const step = Math.max(2, Math.min(width, height) / 5);
    const middle = { ...this.box, x: (picture.width - width) / 2, y: (picture.height - height) / 2 };
    const none = { box: this.box, score: -1 };
    const best = this.searched(picture, middle, { x: picture.width / 2, y: picture.height / 2 }, step, none);
    return this.searched(picture, best.box, { x: step, y: step }, step / 5, best);
  }

  private searched(
    picture: Grey,
    about: Rect,
    reach: { x: number; y: number },
    step: number,
    before: { box: Rect; score: number },
  ): { box: Rect; score: number } {
    const boxes: Rect[] = [];
    for (let y = -reach.y; y <= reach.y + 1e-9; y += step)
      for (let x = -reach.x; x <= reach.x + 1e-9; x += step)
        boxes.push({ ...about, x: about.x + x, y: about.y + y });
    return this.best(picture, boxes, before);
  }

  private best(picture: Grey, boxes: readonly Rect[], before?: { box: Rect; score: number }) {
    let best = before ?? { box: this.box, score: -1 };
    for (const box of boxes) {
      if (!touches(picture, box)) continue;
      const patch = normalisePatch(cutPatch(picture, box));
      const score = Math.max(dot(patch, this.first), dot(patch, this.learnt));
      if (score > best.score) best = { box, score };
    }
    return best;
  }

  private learn(picture: Grey): void {
    const now = normalisePatch(cutPatch(picture, this.box));
    this.learnt = normalisePatch(
      this.learnt.map((value, i) => value * (1 - LEARNS) + (now[i] as number) * LEARNS),
    );
  }
}

const scaleRect = ({ x, y, width, height }: Rect, scale: number): Rect => ({
  x: x + (width * (1 - scale)) / 2,
  y: y + (height * (1 - scale)) / 2,
  width: width * scale,
  height: height * scale,
});

/** Tells whether at least three quarters of a box lie in the picture. */
function touches({ width, height }: Grey, box: Rect): boolean {
  const across = Math.min(width, box.x + box.width) - Math.max(0, box.x);
  const down = Math.min(height, box.y + box.height) - Math.max(0, box.y);
  return across > 0 && down > 0 && across * down >= 0.75 * box.width * box.height;
}

/** Samples of a box at even places; past the picture's edge those of the edge. */
function cutPatch({ data, width, height }: Grey, box: Rect): Patch {
  const patch = new Float32Array(SIDE * SIDE);
  for (let j = 0; j < SIDE; j++) {
    const y = Math.min(height - 1.001, Math.max(0, box.y + ((j + 0.5) * box.height) / SIDE - 0.5));
    const top = Math.floor(y);
    const v = y - top;
    const row = top * width;
    for (let i = 0; i < SIDE; i++) {
      const x = Math.min(width - 1.001, Math.max(0, box.x + ((i + 0.5) * box.width) / SIDE - 0.5));
      const left = Math.floor(x);
      const u = x - left;
      const at = row + left;
      const upper = (data[at] as number) * (1 - u) + (data[at + 1] as number) * u;
      const lower = (data[at + width] as number) * (1 - u) + (data[at + width + 1] as number) * u;
      patch[j * SIDE + i] = upper * (1 - v) + lower * v;
    }
  }
  return patch;
}

/** A patch with its mean taken off and its length made 1; all zero for one without texture. */
function normalisePatch(patch: Patch): Patch {
  let mean = 0;
  for (const value of patch) mean += value;
  mean /= patch.length;
  let length = 0;
  for (const value of patch) length += (value - mean) ** 2;
  const scale = length > 1e-6 ? 1 / Math.sqrt(length) : 0;
  return patch.map((value) => (value - mean) * scale);
}

function dot(a: Patch, b: Patch): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] as number) * (b[i] as number);
  return sum;
}
