/** Planar sound: one array a channel, all as long as each other, samples −1…1. */
export type Planes = Float32Array<ArrayBuffer>[];

const HALF_POWER = Math.SQRT1_2;

/** Where a channel lies. */
type Place = 'left' | 'right' | 'centre' | 'low' | 'back';

/**
 * The places of each channel by their number, in the order of decoders that follow WAVE: quadraphonic has its back
 * pair, six channels are 5.1, seven 6.1 and eight 7.1.
 */
const LAYOUTS: Readonly<Record<number, readonly [Place, ...('left' | 'right')[]][]>> = {
  3: [['left'], ['right'], ['centre']],
  4: [['left'], ['right'], ['back', 'left'], ['back', 'right']],
  5: [['left'], ['right'], ['centre'], ['back', 'left'], ['back', 'right']],
  6: [['left'], ['right'], ['centre'], ['low'], ['back', 'left'], ['back', 'right']],
  7: [['left'], ['right'], ['centre'], ['low'], ['back'], ['back', 'left'], ['back', 'right']],
  8: [
    ['left'],
    ['right'],
    ['centre'],
    ['low'],
    ['back', 'left'],
    ['back', 'right'],
    ['back', 'left'],
    ['back', 'right'],
  ],
};

/**
 * The gain of a channel in left or in right. Source: ITU-R BS.775-3 Annex 4, table 2 (3/2 to 2/0): the centre and
 * each surround 3 dB down, the low channel left out. A single back channel goes to both sides as two surrounds of half
 * its power, and each pair of 7.1 is a pair of surrounds; both are common practice, no source.
 */
function computeGain(side: 'left' | 'right', [place, of]: readonly [Place, ...('left' | 'right')[]]): number {
  if (place === side) return 1;
  if (place === 'centre') return HALF_POWER;
  if (place !== 'back') return 0;
  if (of === undefined) return HALF_POWER * HALF_POWER;
  return of === side ? HALF_POWER : 0;
}

/** Four channels of AAC are three in front and one at the back (ISO/IEC 14496-3, table 1.19). */
const FRONT_AND_BACK: (typeof LAYOUTS)[number] = [['left'], ['right'], ['centre'], ['back']];

/**
 * Sound with another number of channels: one becomes two alike, more than two fold to stereo. The sum of many may be
 * over full scale.
 * @param count 1 or 2. @param codec what the sound was coded in, where it is known.
 */
export function mapChannels(planes: Planes, count: number, codec?: string): Planes {
  const [first, second] = planes;
  if (!first || planes.length === count) return planes;
  if (count === 1)
    return [
      mixPlanes(
        planes,
        planes.map(() => 1 / planes.length),
      ),
    ];
  if (!second) return [first, first.slice()];
  const places = codec === 'aac' && planes.length === 4 ? FRONT_AND_BACK : LAYOUTS[planes.length];
  if (!places) return [first, second];
  const side = (of: 'left' | 'right') =>
    mixPlanes(
      planes,
      places.map((place) => computeGain(of, place)),
    );
  return [side('left'), side('right')];
}

function mixPlanes(planes: Planes, gains: readonly number[]): Float32Array<ArrayBuffer> {
  const out = new Float32Array(planes[0]?.length ?? 0);
  planes.forEach((plane, channel) => {
    const gain = gains[channel] ?? 0;
    if (gain !== 0)
      for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + gain * (plane[i] as number);
  });
  return out;
}
