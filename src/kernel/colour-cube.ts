import { type ColourFacts, fromYcc, toLimitedBt709 } from './colour';
import { hlgToLight, lightToSdr, pqToLight, applyRolloff, sdrToLight } from './transfer';

/** Nodes along each side of a cube: codes 0, 4 … 256. */
export const CUBE_NODES = 65;
const STEP = 4;

/** Brightest light that high dynamic range is taken to hold, and what standard range shows, in cd/m². */
const HDR_PEAK = 1000;
const SDR_PEAK = 100;

type Triple = [number, number, number];

/**
 * Linear light of other primaries as that of BT.709. Sources: ITU-R BT.2407-0, section 2 (from BT.2020); for P3 with
 * the white point D65, computed from SMPTE RP 431-2 and BT.709 by the method of SMPTE RP 177.
 */
const TO_BT709: Record<string, readonly Triple[]> = {
  bt2020: [
    [1.6605, -0.5876, -0.0728],
    [-0.1246, 1.1329, -0.0083],
    [-0.0182, -0.1006, 1.1187],
  ],
  smpte432: [
    [1.2249, -0.2247, 0],
    [-0.042, 1.0419, 0],
    [-0.0197, -0.0786, 1.0979],
  ],
};

/** The primaries that a picture has: those of BT.2020 go with its matrix where nothing else is said. */
const choosePrimaries = ({ primaries, matrix }: ColourFacts): string =>
  primaries ?? (matrix?.startsWith('bt2020') ? 'bt2020' : 'bt709');

/** Conversion of a picture's colour besides its matrix and range. */
export type ColourChange = 'none' | 'primaries' | 'pq' | 'hlg';

/**
 * Finds the colour conversion of a picture whose light or primaries are not those of BT.709, so that a matrix
 * alone is not enough.
 */
export function colourChange(facts: ColourFacts): ColourChange {
  if (facts.transfer === 'pq' || facts.transfer === 'hlg') return facts.transfer;
  return TO_BT709[choosePrimaries(facts)] ? 'primaries' : 'none';
}

/**
 * Limited-range BT.709 of a picture's codes: to light by its transfer function, high dynamic range rolled off to
 * 100 cd/m² by the brightest of its channels, so that hues stay, then to the primaries of BT.709. What these cannot
 * show is clipped.
 *
 * @param codes luma, Cb and Cr, 0…255. @returns the same of the clip, not rounded.
 */
export function mapCodes(facts: ColourFacts, codes: Triple): Triple {
  const change = colourChange(facts);
  const signals = fromYcc(facts, codes);
  const light = relativeLight(change, signals);
  const matrix = TO_BT709[choosePrimaries(facts)];
  const shown = matrix
    ? (matrix.map((row) => row.reduce((sum, k, i) => sum + k * (light[i] as number), 0)) as Triple)
    : light;
  return toLimitedBt709(shown.map((value) => lightToSdr(Math.min(1, value))) as Triple);
}

/** Light 0…1 of what standard range can show, in the picture's own primaries. */
function relativeLight(change: ColourChange, signals: Triple): Triple {
  if (change !== 'pq' && change !== 'hlg') return signals.map(sdrToLight) as Triple;
  const light = change === 'pq' ? (signals.map(pqToLight) as Triple) : hlgToLight(signals);
  const peak = Math.max(...light);
  if (peak <= 0) return [0, 0, 0];
  const gain = applyRolloff(peak, HDR_PEAK, SDR_PEAK) / peak / SDR_PEAK;
  return light.map((value) => value * gain) as Triple;
}

const known = new Map<string, Float32Array>();

/** The cube of a picture's colour, or null where a matrix is enough; the same one for the same colour. */
export function createColourCube(facts: ColourFacts): Float32Array | null {
  if (colourChange(facts) === 'none') return null;
  const { matrix, primaries, transfer, fullRange } = facts;
  const key = [matrix, primaries, transfer, fullRange === true].join();
  const cube = known.get(key) ?? colourCube(facts);
  known.set(key, cube);
  return cube;
}

/** A cube of {@link mapCodes} at its nodes, as the kernel reads it: four numbers a node, Cr fastest. */
function colourCube(facts: ColourFacts): Float32Array {
  const cube = new Float32Array(CUBE_NODES ** 3 * 4);
  for (let n = 0; n < CUBE_NODES ** 3; n++) {
    const nodes: Triple = [
      Math.floor(n / CUBE_NODES ** 2),
      Math.floor(n / CUBE_NODES) % CUBE_NODES,
      n % CUBE_NODES,
    ];
    cube.set(mapCodes(facts, nodes.map((node) => node * STEP) as Triple), n * 4);
  }
  return cube;
}
