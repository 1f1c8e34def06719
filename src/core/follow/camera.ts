import { computeMedian } from '../figures/median';
import { type Grey, shrinkText } from '../pass/grey';

/**
 * How the camera moved between two pictures: a point p of the first lies at (a·x − b·y + dx, b·x + a·y + dy) in the
 * second. Samples, from the middle of the picture.
 */
export interface CameraMove {
  a: number;
  b: number;
  dx: number;
  dy: number;
}

export const STILL: CameraMove = { a: 1, b: 0, dx: 0, dy: 0 };

/** Composes two moves, one after the other. */
export const composeMoves = (first: CameraMove, { a, b, dx, dy }: CameraMove): CameraMove => ({
  a: a * first.a - b * first.b,
  b: b * first.a + a * first.b,
  dx: a * first.dx - b * first.dy + dx,
  dy: b * first.dx + a * first.dy + dy,
});

/** The way back. */
export function isMovedBack({ a, b, dx, dy }: CameraMove): CameraMove {
  const size = a * a + b * b;
  const [c, s] = [a / size, -b / size];
  return { a: c, b: s, dx: -(c * dx - s * dy), dy: -(s * dx + c * dy) };
}

/** The whole picture is first compared at this part of its size, and moved by so many samples of that at most. */
const COARSE = 4;
const REACH = 12;
/** Then squares of this many samples a side, so many samples about what was found; every other row is compared. */
const BLOCK = 24;
const ROWS = 2;
const FINE_REACH = 4;
/** A square whose samples differ less than this tells nothing: variance, in squared grey levels. */
const MIN_TEXTURE = 16;
/** Rounds in which squares that move otherwise are left out of the camera's move. */
const ROUNDS = 6;

interface Vote {
  /** Middle of a square, from the middle of the picture, and where that went. */
  x: number;
  y: number;
  toX: number;
  toY: number;
}

/** The move of the camera between two pictures of one size: most of what is seen moves with it. */
export function estimateCameraMove(before: Grey, after: Grey): CameraMove {
  const coarse = coarseShift(shrinkText(before, COARSE), shrinkText(after, COARSE));
  const votes = blockVotes(before, after, { x: coarse.x * COARSE, y: coarse.y * COARSE });
  return votes.length < 4 ? { ...STILL, dx: coarse.x * COARSE, dy: coarse.y * COARSE } : findConsensus(votes);
}

/** The shift of the whole picture by which the two differ least, in samples. */
function coarseShift(before: Grey, after: Grey): { x: number; y: number } {
  let best = { x: 0, y: 0, cost: Infinity };
  const reach = Math.min(REACH, Math.floor(Math.min(before.width, before.height) / 3));
  for (let y = -reach; y <= reach; y++) {
    for (let x = -reach; x <= reach; x++) {
      const cost = shiftedDistance(before, after, x, y) + 0.02 * (Math.abs(x) + Math.abs(y));
      if (cost < best.cost) best = { x, y, cost };
    }
  }
  return best;
}

/** The mean distance where both pictures overlap, in grey levels. */
function shiftedDistance(
  { data: a, width, height }: Grey,
  { data: b }: Grey,
  dx: number,
  dy: number,
): number {
  const [left, right] = [Math.max(0, -dx), Math.min(width, width - dx)];
  const [top, bottom] = [Math.max(0, -dy), Math.min(height, height - dy)];
  let sum = 0;
  for (let y = top; y < bottom; y++) {
    const row = y * width;
    const other = (y + dy) * width + dx;
    for (let x = left; x < right; x++) sum += Math.abs((a[row + x] as number) - (b[other + x] as number));
  }
  return sum / ((right - left) * (bottom - top));
}

function blockVotes(before: Grey, after: Grey, about: { x: number; y: number }): Vote[] {
  const { width, height } = before;
  const votes: Vote[] = [];
  for (let top = 0; top + BLOCK <= height; top += BLOCK) {
    // As on a chessboard: half of them are enough to agree.
    for (let left = (top / BLOCK) % 2 === 0 ? 0 : BLOCK; left + BLOCK <= width; left += 2 * BLOCK) {
      if (variance(before, left, top) < MIN_TEXTURE) continue;
      const move = blockMove(before, after, left, top, about);
      if (!move) continue;
      const [x, y] = [left + BLOCK / 2 - width / 2, top + BLOCK / 2 - height / 2];
      votes.push({ x, y, toX: x + move.x, toY: y + move.y });
    }
  }
  return votes;
}

function variance({ data, width }: Grey, left: number, top: number): number {
  let [sum, squares] = [0, 0];
  for (let y = top; y < top + BLOCK; y++) {
    for (let x = left; x < left + BLOCK; x++) {
      const value = data[y * width + x] as number;
      sum += value;
      squares += value * value;
    }
  }
  const count = BLOCK * BLOCK;
  return squares / count - (sum / count) ** 2;
}

/** Where a square went, to a part of a sample; null where its way leads out of what is looked at. */
function blockMove(
  before: Grey,
  after: Grey,
  left: number,
  top: number,
  about: { x: number; y: number },
): { x: number; y: number } | null {
  const { width, height } = before;
  const inside = (dx: number, dy: number) =>
    left + dx >= 0 && left + dx + BLOCK <= width && top + dy >= 0 && top + dy + BLOCK <= height;
  const computeCost = (dx: number, dy: number, limit = Infinity) =>
    inside(dx, dy) ? blockDistance(before, after, left, top, dx, dy, limit) : Infinity;
  let best = { x: 0, y: 0, cost: Infinity };
  for (let y = about.y - FINE_REACH; y <= about.y + FINE_REACH; y++) {
    for (let x = about.x - FINE_REACH; x <= about.x + FINE_REACH; x++) {
      const cost = computeCost(x, y, best.cost);
      if (cost < best.cost) best = { x, y, cost };
    }
  }
  const { x, y, cost } = best;
  if (Math.max(Math.abs(x - about.x), Math.abs(y - about.y)) >= FINE_REACH || cost === Infinity) return null;
  return {
    x: x + vertex(computeCost(x - 1, y), cost, computeCost(x + 1, y)),
    y: y + vertex(computeCost(x, y - 1), cost, computeCost(x, y + 1)),
  };
}

/** Sum of distances of a square; it is not gone on with past a limit. */
function blockDistance(
  { data: a, width }: Grey,
  { data: b }: Grey,
  left: number,
  top: number,
  dx: number,
  dy: number,
  limit: number,
): number {
  let sum = 0;
  for (let y = top; y < top + BLOCK; y += ROWS) {
    const row = y * width + left;
    const other = (y + dy) * width + left + dx;
    for (let x = 0; x < BLOCK; x++) sum += Math.abs((a[row + x] as number) - (b[other + x] as number));
    if (sum > limit) return sum;
  }
  return sum;
}

/** Where a parabola through three even steps is least, from the middle one. */
function vertex(before: number, here: number, after: number): number {
  const bend = before - 2 * here + after;
  return Number.isFinite(bend) && bend > 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0;
}

/** The move on which most squares agree: least squares, with those that lie far off left out again and again. */
function findConsensus(votes: readonly Vote[]): CameraMove {
  let weights = votes.map(() => 1);
  let move: CameraMove = {
    ...STILL,
    dx: computeMedian(votes.map((vote) => vote.toX - vote.x)),
    dy: computeMedian(votes.map((vote) => vote.toY - vote.y)),
  };
  for (let round = 0; round < ROUNDS; round++) {
    const misses = votes.map((vote) => computeMiss(vote, move));
    const spread = Math.max(0.3, 2 * computeMedian(misses));
    weights = misses.map((miss) => (miss < spread ? (1 - (miss / spread) ** 2) ** 2 : 0));
    move = fitMove(votes, weights) ?? move;
  }
  return move;
}

function computeMiss({ x, y, toX, toY }: Vote, { a, b, dx, dy }: CameraMove): number {
  return Math.hypot(a * x - b * y + dx - toX, b * x + a * y + dy - toY);
}

/** The similarity that fits best; null for too few squares. */
function fitMove(votes: readonly Vote[], weights: readonly number[]): CameraMove | null {
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  if (total < 3) return null;
  const mean = (of: (vote: Vote) => number) =>
    votes.reduce((sum, vote, i) => sum + of(vote) * (weights[i] as number), 0) / total;
  const [mx, my] = [mean(({ x }) => x), mean(({ y }) => y)];
  const [tx, ty] = [mean(({ toX }) => toX), mean(({ toY }) => toY)];
  let [along, across, size] = [0, 0, 0];
  votes.forEach(({ x, y, toX, toY }, i) => {
    const weight = weights[i] as number;
    const [px, py, qx, qy] = [x - mx, y - my, toX - tx, toY - ty];
    along += weight * (px * qx + py * qy);
    across += weight * (px * qy - py * qx);
    size += weight * (px * px + py * py);
  });
  if (size < 1) return null;
  const [a, b] = [along / size, across / size];
  return { a, b, dx: tx - (a * mx - b * my), dy: ty - (b * mx + a * my) };
}

/**
 * A picture as the camera would have seen it from where it was for another: sampled where each point went.
 * @param move from the wanted view to the picture. Samples that lie outside are NaN.
 */
export function warpByCameraMove(picture: Grey, { a, b, dx, dy }: CameraMove): Float32Array {
  const { data, width, height } = picture;
  const view = new Float32Array(width * height);
  const [cx, cy] = [(width - 1) / 2, (height - 1) / 2];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [px, py] = [x - cx, y - cy];
      const [sx, sy] = [a * px - b * py + dx + cx, b * px + a * py + dy + cy];
      const [left, top] = [Math.floor(sx), Math.floor(sy)];
      if (sx < 0 || sy < 0 || sx > width - 1 || sy > height - 1) {
        view[y * width + x] = NaN;
        continue;
      }
      const [u, v] = [sx - left, sy - top];
      const [right, below] = [Math.min(left + 1, width - 1), Math.min(top + 1, height - 1) * width];
      const row = top * width;
      const upper = (data[row + left] as number) * (1 - u) + (data[row + right] as number) * u;
      const lower = (data[below + left] as number) * (1 - u) + (data[below + right] as number) * u;
      view[y * width + x] = upper * (1 - v) + lower * v;
    }
  }
  return view;
}
