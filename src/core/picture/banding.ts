import type { GreyPlane } from './likeness';

/*
 * Contrast-aware multiscale banding index. Source: P. Tandon, M. Afonso, J. Sole, L. Krasula, "CAMBI: Contrast-aware
 * Multiscale Banding Index", Picture Coding Symposium 2021. Its structure is the paper's; constants that the paper leaves
 * open are from memory.
 */

/** Scales that bands are looked for at, each half as large as the one before, and what each weighs. */
const SCALE_WEIGHTS = [16, 8, 4, 2, 1];
/** Weights of a step of one to four codes of 10 bits. */
const STEP_WEIGHTS = [1, 2, 3, 4];
const STEPS = STEP_WEIGHTS.length;
/** Codes of 10 bits, and as many beside them as a step is large. */
const CODES = 1024 + 2 * STEPS;
/** A window has this side on a picture of 3840×2160, in samples. */
const WINDOW_ON_4K = 65;
const HALF_OF_4K = 3840 + 2160;
/** Samples of an area of 7×7 that have to be level for the sample in the middle to be looked at. */
const LEVEL_SIDE = 7;
const LEVEL_LEAST = 24;
/** Bands are wide: one sample of so many, either way, is looked at. */
const STRIDE = 4;
/** The share of samples that counts: those with the worst bands. */
const WORST = 0.6;
/** A step of this share of the light is seen. */
const SEEN = 0.019;

/**
 * How much banding a picture shows in what is nearly level: 0 for none, about 5 where it starts to annoy, 24 at most.
 * @throws RangeError for a picture smaller than 16 samples either way.
 */
export function banding({ data, width, height }: GreyPlane): number {
  if (width < 16 || height < 16) throw new RangeError('the picture is too small to have bands');
  let picture = removeDither(data, width, height);
  let level = levelParts(picture);
  const side = oddSide((WINDOW_ON_4K * (width + height)) / HALF_OF_4K);
  let sum = 0;
  SCALE_WEIGHTS.forEach((weight, scale) => {
    if (scale > 0) {
      picture = findMode(halveCodes(picture));
      level = halveCodes(level);
    }
    sum += weight * findWorst(findBands(picture, level, side));
  });
  return sum / side ** 2;
}

/** Codes of a picture, row after row. */
interface Codes {
  data: Uint16Array;
  width: number;
  height: number;
}

const oddSide = (size: number): number => Math.max(3, 2 * Math.floor(size / 2) + 1);

/** Codes of 10 bits: the sum of two by two samples, in which dither averages out. */
function removeDither(data: Uint8Array, width: number, height: number): Codes {
  const codes = new Uint16Array(width * height);
  for (let y = 0, at = 0; y < height; y++) {
    const below = y + 1 < height ? width : 0;
    for (let x = 0; x < width; x++, at++) {
      const right = x + 1 < width ? 1 : 0;
      codes[at] =
        (data[at] as number) +
        (data[at + right] as number) +
        (data[at + below] as number) +
        (data[at + below + right] as number);
    }
  }
  return { data: codes, width, height };
}

/** Marks samples with enough level ones around them: bands are seen there, edges and texture are not. */
function levelParts({ data, width, height }: Codes): Codes {
  const reach = (LEVEL_SIDE - 1) / 2;
  const level = new Uint16Array(width * height);
  const columns = new Uint16Array(width);
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at++) {
      const right = x + 1 === width || data[at] === data[at + 1];
      level[at] = right && (y + 1 === height || data[at] === data[at + width]) ? 1 : 0;
    }
  }
  const marks = new Uint16Array(width * height);
  const row = (y: number, sign: number): void => {
    if (y < 0 || y >= height) return;
    for (let x = 0; x < width; x++)
      columns[x] = (columns[x] as number) + sign * (level[y * width + x] as number);
  };
  for (let y = 0; y < reach; y++) row(y, 1);
  for (let y = 0; y < height; y++) {
    row(y + reach, 1);
    row(y - reach - 1, -1);
    let sum = 0;
    for (let x = 0; x < reach; x++) sum += columns[x] as number;
    for (let x = 0; x < width; x++) {
      sum += (columns[x + reach] ?? 0) - (columns[x - reach - 1] ?? 0);
      marks[y * width + x] = Number(sum > LEVEL_LEAST);
    }
  }
  return { data: marks, width, height };
}

/** Every second sample of every second row. */
function halveCodes({ data, width, height }: Codes): Codes {
  const [across, down] = [Math.ceil(width / 2), Math.ceil(height / 2)];
  const half = new Uint16Array(across * down);
  for (let y = 0, at = 0; y < down; y++)
    for (let x = 0; x < across; x++, at++) half[at] = data[2 * y * width + 2 * x] as number;
  return { data: half, width: across, height: down };
}

/** The most usual of three samples in a row, then of three above each other; the least where all differ. */
function findMode(codes: Codes): Codes {
  const { width, height } = codes;
  const pass = (data: Uint16Array, step: number, inside: (at: number) => boolean): Uint16Array =>
    data.map((own, at) => {
      if (!inside(at)) return own;
      const [before, after] = [data[at - step] as number, data[at + step] as number];
      if (own === before || own === after) return own;
      return before === after ? before : Math.min(own, before, after);
    });
  const across = pass(codes.data, 1, (at) => at % width > 0 && at % width < width - 1);
  return { width, height, data: pass(across, width, (at) => at >= width && at < width * (height - 1)) };
}

/** By code and step, whether a step up from there is seen (light by ITU-R BT.1886, limited range). */
const isSeen = STEP_WEIGHTS.map((_, n) =>
  Uint8Array.from({ length: 1024 }, (_, code) => {
    const [low, high] = [computeLight(code), computeLight(code + n + 1)];
    return Number(high - low > (SEEN * (low + high)) / 2);
  }),
);

/** Light of a code of 10 bits, in candelas a square metre, on a screen of 300 to 0.01. */
function computeLight(code: number): number {
  const [white, black] = [300 ** (1 / 2.4), 0.01 ** (1 / 2.4)];
  const level = Math.max(0, Math.min(1, (code - 64) / (940 - 64)));
  return (white - black) ** 2.4 * Math.max(level + black / (white - black), 0) ** 2.4;
}

/** How much of a band marked samples are on, from what their windows hold of codes one to four steps away. */
function findBands({ data, width, height }: Codes, { data: marks }: Codes, side: number): Float32Array {
  const reach = (side - 1) / 2;
  const columns = Math.ceil(width / STRIDE);
  const held = new Uint16Array(CODES * columns);
  const bands = new Float32Array(columns * Math.ceil(height / STRIDE));
  const row = (y: number, sign: number): void => {
    if (y < 0 || y >= height) return;
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (marks[at] === 0) continue;
      const base = ((data[at] as number) + STEPS) * columns;
      const to = Math.min(columns - 1, Math.floor((x + reach) / STRIDE));
      for (let n = Math.max(0, Math.ceil((x - reach) / STRIDE)); n <= to; n++)
        held[base + n] = (held[base + n] as number) + sign;
    }
  };
  for (let y = 0; y < reach; y++) row(y, 1);
  for (let y = 0, to = 0; y < height; y++) {
    row(y + reach, 1);
    row(y - reach - 1, -1);
    if (y % STRIDE !== 0) continue;
    for (let column = 0; column < columns; column++, to++) {
      const at = y * width + column * STRIDE;
      if (marks[at] !== 0) bands[to] = findBand(held, columns, data[at] as number, column);
    }
  }
  return bands;
}

function findBand(held: Uint16Array, columns: number, code: number, column: number): number {
  const at = (code + STEPS) * columns + column;
  const own = held[at] as number;
  let worst = 0;
  for (let n = 1; n <= STEPS; n++) {
    if (!isSeen[n - 1]?.[code]) continue;
    const other = Math.max(held[at + n * columns] as number, held[at - n * columns] as number);
    worst = Math.max(worst, ((STEP_WEIGHTS[n - 1] as number) * own * other) / (own + other));
  }
  return worst;
}

/** The mean of the worst share of all samples. */
function findWorst(bands: Float32Array): number {
  const count = Math.max(1, Math.round(WORST * bands.length));
  const some = bands.filter((band) => band > 0).sort();
  return some.slice(Math.max(0, some.length - count)).reduce((sum, band) => sum + band, 0) / count;
}
