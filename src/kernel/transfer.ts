/**
 * Perceptual quantiser: a signal 0…1 as display light in cd/m², 0…10000, and back.
 * Source: ITU-R BT.2100-2, table 4 (SMPTE ST 2084).
 */
const M1 = 2610 / 16384;
const M2 = (2523 / 4096) * 128;
const C1 = 3424 / 4096;
const C2 = (2413 / 4096) * 32;
const C3 = (2392 / 4096) * 32;

export function pqToLight(signal: number): number {
  const power = Math.max(0, signal) ** (1 / M2);
  return 10_000 * (Math.max(0, power - C1) / (C2 - C3 * power)) ** (1 / M1);
}

export function lightToPq(light: number): number {
  const power = (Math.max(0, light) / 10_000) ** M1;
  return ((C1 + C2 * power) / (1 + C3 * power)) ** M2;
}

/** Scene light 0…1 of a hybrid log-gamma signal 0…1. Source: ITU-R BT.2100-2, table 5 (inverse of the OETF). */
function hlgToScene(signal: number): number {
  const [a, b, c] = [0.17883277, 0.28466892, 0.55991073];
  const value = Math.max(0, signal);
  return value <= 0.5 ? (value * value) / 3 : (Math.exp((value - c) / a) + b) / 12;
}

/** Luma weights of BT.2020, which the system gamma goes by (BT.2020-2, table 4). */
const WEIGHTS = [0.2627, 0.678, 0.0593] as const;
type Triple = [number, number, number];

/**
 * Display light in cd/m² of hybrid log-gamma signals, on a display of 1000 cd/m², whose system gamma is 1.2.
 * Source: ITU-R BT.2100-2, table 5 (OOTF), black at 0.
 */
export function hlgToLight(signals: Triple): Triple {
  const scene = signals.map(hlgToScene) as Triple;
  const luma = scene.reduce((sum, value, i) => sum + value * (WEIGHTS[i] as number), 0);
  const gain = luma > 0 ? 1000 * luma ** 0.2 : 0;
  return scene.map((value) => value * gain) as Triple;
}

/** Gamma of a display for standard range, black at 0. Source: ITU-R BT.1886, annex 1. */
const GAMMA = 2.4;
export const sdrToLight = (signal: number): number => Math.max(0, signal) ** GAMMA;
export const lightToSdr = (light: number): number => Math.max(0, light) ** (1 / GAMMA);

/**
 * Display light mapped from a peak to a lower one: as it is up to the knee, rolled off above it.
 * Source: ITU-R BT.2390-11, section 5.4.1 (EETF), both blacks at 0.
 *
 * @param light cd/m². @param from and `to` the peaks, in cd/m².
 */
export function applyRolloff(light: number, from: number, to: number): number {
  const whole = lightToPq(from);
  const most = lightToPq(to) / whole;
  const knee = 1.5 * most - 0.5;
  const signal = Math.min(1, lightToPq(light) / whole);
  if (signal <= knee) return light;
  const t = (signal - knee) / (1 - knee);
  const spline =
    (2 * t ** 3 - 3 * t ** 2 + 1) * knee +
    (t ** 3 - 2 * t ** 2 + t) * (1 - knee) +
    (-2 * t ** 3 + 3 * t ** 2) * most;
  return pqToLight(spline * whole);
}
