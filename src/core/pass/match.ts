import type { Grey } from './grey';

/** Side of a block, in samples of the grey picture. */
const BLOCK = 5;
/** Search around the picture's own shift, in samples. */
const REACH = 2;
/** Blocks flatter than this, in grey levels, say nothing of structure. */
const FLAT = 2.5;

/** How a picture goes over into the next. */
export interface Match {
  /** 0: the same things, moved; 1: nothing in common. Brightness does not count. */
  change: number;
  /** The whole picture's movement, in samples. */
  shift: { x: number; y: number };
  /** 0…1: how much of the picture has structure to judge by. */
  evidence: number;
}

function sums({ width, height, data }: Grey): { across: Float32Array; down: Float32Array } {
  const across = new Float32Array(width);
  const down = new Float32Array(height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const value = data[y * width + x] as number;
      across[x] = (across[x] as number) + value / height;
      down[y] = (down[y] as number) + value / width;
    }
  }
  return { across, down };
}

/** The shift at which one profile lies best on another, their means taken away; at most half their length. */
function profileShift(a: Float32Array, b: Float32Array): number {
  const most = Math.floor(a.length * 0.45);
  let best = 0;
  let least = Infinity;
  for (let shift = -most; shift <= most; shift++) {
    const from = Math.max(0, shift);
    const to = Math.min(a.length, a.length + shift);
    let offset = 0;
    for (let i = from; i < to; i++) offset += (b[i] as number) - (a[i - shift] as number);
    offset /= to - from;
    let sum = 0;
    for (let i = from; i < to; i++) sum += Math.abs((b[i] as number) - (a[i - shift] as number) - offset);
    // A long shift compares little and fits by chance: it must fit better.
    const score =
      (sum / (to - from)) * (1 + (0.5 * Math.abs(shift)) / a.length) +
      (0.02 * Math.abs(shift > 0 ? shift : -shift)) / a.length;
    if (score < least) [least, best] = [score, shift];
  }
  return best;
}

/**
 * Compares a picture with the one before it: the whole picture's movement is found by its profiles, then each block
 * is looked for around it. What is left, against each block's own structure, is the change.
 */
export function matchPictures(before: Grey, after: Grey): Match {
  const a = sums(before);
  const b = sums(after);
  const shift = { x: profileShift(a.across, b.across), y: profileShift(a.down, b.down) };
  const still = measureChange(before, after, { x: 0, y: 0 });
  if ((shift.x === 0 && shift.y === 0) || still.change < 0.2) return { ...still, shift: { x: 0, y: 0 } };
  const panned = measureChange(before, after, shift);
  return panned.change < still.change ? { ...panned, shift: shift } : { ...still, shift: { x: 0, y: 0 } };
}

function measureChange(
  before: Grey,
  after: Grey,
  shift: { x: number; y: number },
): { change: number; evidence: number } {
  let change = 0;
  let weight = 0;
  let blocks = 0;
  for (let y = 0; y + BLOCK <= after.height; y += BLOCK) {
    for (let x = 0; x + BLOCK <= after.width; x += BLOCK) {
      // What came into the picture from outside was not there before.
      if (!inside(before, x - shift.x, y - shift.y)) continue;
      blocks += 1;
      const block = blockChange(before, after, x, y, shift);
      if (!block) continue;
      change += block.change * block.weight;
      weight += block.weight;
    }
  }
  if (weight === 0) return { change: 0, evidence: 0 };
  return { change: change / weight, evidence: Math.min(1, weight / Math.max(1, blocks)) };
}

const inside = ({ width, height }: Grey, x: number, y: number): boolean =>
  x >= 0 && y >= 0 && x + BLOCK <= width && y + BLOCK <= height;

function blockMean({ width, data }: Grey, x: number, y: number): number {
  let sum = 0;
  for (let j = 0; j < BLOCK; j++) {
    const row = (y + j) * width + x;
    for (let i = 0; i < BLOCK; i++) sum += data[row + i] as number;
  }
  return sum / (BLOCK * BLOCK);
}

function blockChange(
  before: Grey,
  after: Grey,
  x: number,
  y: number,
  shift: { x: number; y: number },
): { change: number; weight: number } | null {
  const mean = blockMean(after, x, y);
  let activity = 0;
  for (let j = 0; j < BLOCK; j++) {
    const row = (y + j) * after.width + x;
    for (let i = 0; i < BLOCK; i++) activity += Math.abs((after.data[row + i] as number) - mean);
  }
  activity /= BLOCK * BLOCK;
  let least = Infinity;
  let other = 0;
  for (let dy = -REACH; dy <= REACH; dy++) {
    for (let dx = -REACH; dx <= REACH; dx++) {
      const bx = x - shift.x + dx;
      const by = y - shift.y + dy;
      if (!inside(before, bx, by)) continue;
      const offset = mean - blockMean(before, bx, by);
      let sum = 0;
      let own = 0;
      for (let j = 0; j < BLOCK && sum < least * BLOCK * BLOCK; j++) {
        const row = (y + j) * after.width + x;
        const from = (by + j) * before.width + bx;
        for (let i = 0; i < BLOCK; i++) {
          const was = before.data[from + i] as number;
          sum += Math.abs((after.data[row + i] as number) - was - offset);
          own += Math.abs(was + offset - mean);
        }
      }
      if (sum / (BLOCK * BLOCK) < least) {
        least = sum / (BLOCK * BLOCK);
        other = own / (BLOCK * BLOCK);
      }
    }
  }
  // Structure of either picture counts: a thing that vanished into a flat wall is a change too.
  const structure = Math.max(activity, other);
  if (structure < FLAT || least === Infinity) return null;
  return { change: Math.min(1, least / structure), weight: Math.min(1, structure / 8) };
}
