import { memoize } from '@core/figures/memoize';
import { toDirection } from '@core/framing/window';
import type { Kernel } from './kernel';
import type { PlanarPicture, SampleWindow } from './planes';
import { TAP_ONE } from './lanczos';

/** A window that lies turned on a picture. */
export interface TiltedWindow extends SampleWindow {
  /** Degrees clockwise about its centre, measured where pixels are square. */
  angle: number;
  /** Width of the picture's samples over their height. */
  sampleAspect: number;
}

/** Samples around the turned window that the cubic reaches, and what rounding to even sizes adds. */
const PAD = 4;
const PHASES = 256;
/** The kernel cuts a phase off: half of one more rounds it. */
const ROUND = 0.5 / PHASES;

/** Size of the upright picture that a turned one is made from, in samples of the target. @param angle degrees. */
export function levelSize(
  rect: { width: number; height: number },
  angle: number,
): { width: number; height: number } {
  const { cos, sin } = toDirection(angle);
  const extent = (a: number, b: number) => 2 * Math.ceil((Math.abs(a) + Math.abs(b)) / 2) + 2 * PAD;
  return {
    width: extent(rect.width * cos, rect.height * sin),
    height: extent(rect.width * sin, rect.height * cos),
  };
}

/**
 * Fills a rectangle of a target from a turned window: Lanczos-3 to the target's scale first, so that nothing
 * aliases, then a cubic from grid to grid.
 *
 * @param source upright planes. @param rect whole even luma samples of the target.
 * @param slot see {@link Kernel.scale}.
 */
export function scaleTilted(
  kernel: Kernel,
  source: PlanarPicture,
  window: TiltedWindow,
  target: PlanarPicture,
  rect: SampleWindow,
  slot: string,
): void {
  const { cos, sin } = toDirection(window.angle);
  const { width, height } = levelSize(rect, window.angle);
  const level = kernel.picture(`tilt-${slot}`, 'I420', width, height, 16);
  // Square pixels of the picture for one of the target.
  const step = window.height / rect.height;
  const centre = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
  const around = {
    width: (width * step) / window.sampleAspect,
    height: height * step,
  };
  const from = { ...around, x: centre.x - around.width / 2, y: centre.y - around.height / 2 };
  kernel.scale(source, from, level, { x: 0, y: 0, width, height }, `tilt-${slot}`);
  const tables = cubicTables(kernel);
  target.planes.forEach((plane, index) => {
    const to = level.planes[index];
    if (!to) throw new RangeError(`the target has a plane ${index} too many`);
    const sub = index === 0 ? 1 : 2;
    // Where a plane's first sample lies, in luma samples: chroma is left across and centred down.
    const offset = { x: 0.5, y: index === 0 ? 0.5 : 1 };
    const [x, y] = [offset.x - rect.width / 2, offset.y - rect.height / 2];
    kernel.exports.samplePlane(
      to.offset,
      to.stride,
      plane.offset + (rect.y / sub) * plane.stride + rect.x / sub,
      plane.stride,
      rect.width / sub,
      rect.height / sub,
      (width / 2 + x * cos - y * sin - offset.x) / sub + ROUND,
      (height / 2 + x * sin + y * cos - offset.y) / sub + ROUND,
      cos,
      sin,
      -sin,
      cos,
      tables.across,
      tables.down,
    );
  });
}

/**
 * Taps of the cubic convolution with a = −1/2, at 256 phases.
 * Source: R. G. Keys, "Cubic Convolution Interpolation for Digital Image Processing", IEEE Trans. ASSP 29 (1981).
 */
export function cubicTaps(phase: number): [number, number, number, number] {
  const near = (x: number) => (1.5 * x - 2.5) * x * x + 1;
  const far = (x: number) => ((-0.5 * x + 2.5) * x - 4) * x + 2;
  const taps = [far(1 + phase), near(phase), near(1 - phase)].map((tap) => Math.round(tap * TAP_ONE));
  const [a, b, c] = taps as [number, number, number];
  return [a, b, c, TAP_ONE - a - b - c];
}

/** Places of the tables of taps in a kernel's memory; they are written once. */
const cubicTables = memoize((kernel: Kernel): { across: number; down: number } => {
  const across = kernel.block('cubic-across', PHASES * 16);
  const down = kernel.block('cubic-down', PHASES * 32);
  const words = new Int16Array(kernel.bytes(across, PHASES * 16).buffer, across, PHASES * 8);
  const longs = new Int32Array(kernel.bytes(down, PHASES * 32).buffer, down, PHASES * 8);
  for (let n = 0; n < PHASES; n++) {
    const taps = cubicTaps(n / PHASES);
    words.set([...taps, ...taps], n * 8);
    longs.set(
      taps.flatMap((tap) => [tap, tap]),
      n * 8,
    );
  }
  return { across, down };
});
