/** A small grey picture, one byte a sample, rows without padding. */
export interface Grey {
  width: number;
  height: number;
  data: Uint8Array;
}

/** A grey picture made smaller by a whole factor; what does not fill a sample at the edges falls away. */
export function shrinkText(grey: Grey, factor: number): Grey {
  const width = Math.max(1, Math.floor(grey.width / factor));
  const height = Math.max(1, Math.floor(grey.height / factor));
  const data = new Uint8Array(width * height);
  const area = factor * factor;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = area >> 1;
      for (let j = 0; j < factor; j++) {
        const row = (y * factor + j) * grey.width + x * factor;
        for (let i = 0; i < factor; i++) sum += grey.data[row + i] ?? 0;
      }
      data[y * width + x] = sum / area;
    }
  }
  return { width, height, data };
}

/** The mean distance of two pictures of one size, in grey levels. */
export function meanDistance(a: Grey, b: Grey): number {
  let sum = 0;
  for (let i = 0; i < a.data.length; i++) sum += Math.abs((a.data[i] as number) - (b.data[i] as number));
  return sum / Math.max(1, a.data.length);
}

/** Mean and standard deviation, in grey levels. */
export function computeSpread({ data }: Grey): { mean: number; deviation: number } {
  let sum = 0;
  let squares = 0;
  for (const value of data) {
    sum += value;
    squares += value * value;
  }
  const mean = sum / Math.max(1, data.length);
  return { mean, deviation: Math.sqrt(Math.max(0, squares / Math.max(1, data.length) - mean * mean)) };
}

/**
 * How far a picture is from a mix of two others, in grey levels.
 * @param share 0…1 of `b` in the mix.
 */
export function mixDistance(picture: Grey, a: Grey, b: Grey, share: number): number {
  let sum = 0;
  for (let i = 0; i < picture.data.length; i++) {
    const mix = (a.data[i] as number) * (1 - share) + (b.data[i] as number) * share;
    sum += Math.abs((picture.data[i] as number) - mix);
  }
  return sum / Math.max(1, picture.data.length);
}

/** Correlation of two pictures, −1…1: brightness and contrast do not count. */
export function correlation(a: Grey, b: Grey): number {
  const spread = computeSpread(a);
  const two = computeSpread(b);
  if (spread.deviation === 0 || two.deviation === 0) return 0;
  let sum = 0;
  for (let i = 0; i < a.data.length; i++) {
    sum += ((a.data[i] as number) - spread.mean) * ((b.data[i] as number) - two.mean);
  }
  return sum / (a.data.length * spread.deviation * two.deviation);
}
