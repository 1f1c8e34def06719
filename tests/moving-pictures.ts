import type { Grey } from '../src/core/pass/grey';
import { random } from './random';

/** A textured ground larger than the picture, as layers of smooth noise. */
export function ground(width: number, height: number, seed: number): (x: number, y: number) => number {
  const layers = [48, 20, 9].map((cell, layer) => {
    const next = random(seed * 10 + layer);
    const [across, down] = [Math.ceil(width / cell) + 8, Math.ceil(height / cell) + 8];
    const values = Float32Array.from({ length: across * down }, () => next());
    return { cell, across, down, values, height: [60, 40, 25][layer] as number };
  });
  return (x, y) =>
    layers.reduce((sum, { cell, across, down, values, height: level }) => {
      const [u, v] = [x / cell + 3, y / cell + 3];
      const at = (i: number, j: number) =>
        values[Math.min(down - 1, Math.max(0, j)) * across + Math.min(across - 1, Math.max(0, i))] as number;
      const [i, j] = [Math.floor(u), Math.floor(v)];
      const smooth = (share: number) => share * share * (3 - 2 * share);
      const [s, t] = [smooth(u - i), smooth(v - j)];
      const upper = at(i, j) * (1 - s) + at(i + 1, j) * s;
      const lower = at(i, j + 1) * (1 - s) + at(i + 1, j + 1) * s;
      return sum + level * (upper * (1 - t) + lower * t - 0.5);
    }, 120);
}

/** A scene with a subject over moving ground, in samples of the picture. */
export interface Scene {
  width: number;
  height: number;
  seed: number;
  /** Where the camera looks at a time: its shift, turn in degrees and zoom. */
  camera(seconds: number): { x: number; y: number; turn: number; zoom: number };
  /** Middle and radius of a round subject in the picture; null where it is hidden. */
  subject(seconds: number): { x: number; y: number; radius: number } | null;
  /** Standard deviation of the grain, in grey levels. */
  grain: number;
}

/** The picture of a scene at a time. */
export function pictureOf({ width, height, seed, camera, subject, grain }: Scene, seconds: number): Grey {
  const level = ground(width * 1.6, height * 1.6, seed);
  const next = random(Math.round(seconds * 1000) + 5);
  const { x: panX, y: panY, turn, zoom } = camera(seconds);
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180) / zoom, Math.sin((turn * Math.PI) / 180) / zoom];
  const place = subject(seconds);
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [px, py] = [x - width / 2, y - height / 2];
      let value = level(cos * px - sin * py + width * 0.8 + panX, sin * px + cos * py + height * 0.8 + panY);
      if (place) {
        const [dx, dy] = [x - place.x, y - place.y];
        if (Math.hypot(dx, dy) < place.radius)
          value = 205 + 30 * Math.sin((dx + dy) / Math.max(2, place.radius / 3));
      }
      const noise = (next() + next() + next() - 1.5) * 2 * grain;
      data[y * width + x] = Math.min(255, Math.max(0, value + noise));
    }
  }
  return { width, height, data };
}

type Camera = Scene['camera'];
/** A camera that stands, one in a hand that shakes, and one that pans by so many samples a second. */
export const standing: Camera = () => ({ x: 0, y: 0, turn: 0, zoom: 1 });
export const shaking: Camera = (t) => ({
  x: 3 * Math.sin(9 * t),
  y: 2 * Math.cos(11 * t),
  turn: 0.4 * Math.sin(7 * t),
  zoom: 1,
});
export const panning =
  (speed: number): Camera =>
  (t) => ({ ...standing(t), x: speed * t });
