/** Planar sound: one array a channel, all as long as each other, samples −1…1. */
export type Planes = Float32Array<ArrayBuffer>[];

const HALF_POWER = Math.SQRT1_2;

/**
 * Gains of each source channel in left and right, by the number of channels; the order is that of WAVE and AAC
 * decoders (left, right, centre, low, surrounds). Source: ITU-R BS.775-3 Annex 4, table 2 (3/2 to 2/0); the low
 * channel is left out, as there.
 */
const DOWNMIX: Record<number, [left: number[], right: number[]]> = {
  3: [
    [1, 0, HALF_POWER],
    [0, 1, HALF_POWER],
  ],
  4: [
    [1, 0, HALF_POWER, 0],
    [0, 1, 0, HALF_POWER],
  ],
  5: [
    [1, 0, HALF_POWER, HALF_POWER, 0],
    [0, 1, HALF_POWER, 0, HALF_POWER],
  ],
  6: [
    [1, 0, HALF_POWER, 0, HALF_POWER, 0],
    [0, 1, HALF_POWER, 0, 0, HALF_POWER],
  ],
};

/** Sound with another number of channels: one becomes two alike, more than two fold to stereo. @param count 1 or 2. */
export function mapChannels(planes: Planes, count: number): Planes {
  const [first, second] = planes;
  if (!first || planes.length === count) return planes;
  if (count === 1)
    return [
      mixed(
        planes,
        planes.map(() => 1 / planes.length),
      ),
    ];
  if (!second) return [first, first.slice()];
  const gains = DOWNMIX[planes.length];
  return gains ? [mixed(planes, gains[0]), mixed(planes, gains[1])] : [first, second];
}

function mixed(planes: Planes, gains: readonly number[]): Float32Array<ArrayBuffer> {
  const out = new Float32Array(planes[0]?.length ?? 0);
  planes.forEach((plane, channel) => {
    const gain = gains[channel] ?? 0;
    if (gain !== 0)
      for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + gain * (plane[i] as number);
  });
  return out;
}
