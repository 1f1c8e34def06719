import { execFileSync } from 'node:child_process';
import type { PictureRect } from '../src/core/picture/size';
import { ground, type Scene } from './moving-pictures';
import { random } from './random';

/** A cut-out photograph: red, green, blue and how much it covers, a byte each. */
export interface Photograph {
  width: number;
  height: number;
  pixels: Uint8Array;
}

/** Photographs of `tests/photographs`, with their sizes. */
const SIZES = { firefighter: [100, 200], horse: [200, 138], dog: [175, 200], pickup: [200, 69] } as const;
export type PhotographName = keyof typeof SIZES;

export function photograph(name: PhotographName): Photograph {
  const [width, height] = SIZES[name];
  const args = [
    '-v',
    'error',
    '-i',
    `tests/photographs/${name}.png`,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgba',
    '-',
  ];
  return { width, height, pixels: new Uint8Array(execFileSync('ffmpeg', args, { maxBuffer: 1 << 26 })) };
}

/** Somebody or something in a scene. */
export interface Actor {
  photo: Photograph;
  /** Height, 0…1 of the picture's. */
  size: number;
  /** How much wider than the photograph: a person's build. */
  build?: number;
  /** Looks the other way. */
  mirrored?: boolean;
  /** Where the middle is at a time, 0…1 of the picture. */
  at(seconds: number): { x: number; y: number };
}

/** A scene of photographs over textured ground. */
export interface FilmedScene extends Pick<Scene, 'seed' | 'camera' | 'grain'> {
  /** The last one stands in front. */
  actors: readonly Actor[];
  /** Something to hide behind, which stands on the ground: its left edge and width, 0…1 of the picture. */
  post?: { x: number; width: number };
}

const ASPECT = 16 / 9;

/** Where an actor is at a time, 0…1 of the picture. */
export function placeOf({ photo, size, build = 1, at }: Actor, seconds: number): PictureRect {
  const { x, y } = at(seconds);
  const width = ((size * photo.width) / photo.height / ASPECT) * build;
  return { x: x - width / 2, y: y - size / 2, width, height: size };
}

/** Films a scene in pictures of red, green, blue and 255. */
export function filmed(scene: FilmedScene, width: number, height: number) {
  const level = ground(width * 1.6, height * 1.6, scene.seed);
  return (seconds: number): Uint8ClampedArray => {
    const pixels = new Uint8ClampedArray(width * height * 4);
    const { x: panX, y: panY, turn, zoom } = scene.camera(seconds);
    const [cos, sin] = [Math.cos((turn * Math.PI) / 180) / zoom, Math.sin((turn * Math.PI) / 180) / zoom];
    /** Where on the ground a pixel looks. */
    const groundOf = (x: number, y: number): [number, number] => {
      const [px, py] = [x - width / 2, y - height / 2];
      return [cos * px - sin * py + width * 0.8 + panX, sin * px + cos * py + height * 0.8 + panY];
    };
    const everywhere = (colourAt: (x: number, y: number) => [number, number, number] | null) => {
      for (let y = 0; y < height; y++)
        for (let x = 0; x < width; x++) {
          const colour = colourAt(...groundOf(x, y));
          if (colour) pixels.set(colour, (y * width + x) * 4);
        }
    };
    pixels.fill(255);
    everywhere((x, y) => {
      const value = level(x, y);
      return [value * 0.8, value, value * 0.6];
    });
    for (const actor of scene.actors) paste(pixels, width, height, actor, placeOf(actor, seconds));
    const { post } = scene;
    if (post)
      everywhere((x, y) => {
        const along = x / width - 0.3 - post.x;
        if (along < 0 || along > post.width) return null;
        const value = 90 + 40 * Math.sin(x * 0.9) + 10 * Math.sin(y * 0.7);
        return [value, value * 0.8, value * 0.6];
      });
    const next = random(Math.round(seconds * 1000) + scene.seed);
    for (let i = 0; i < pixels.length; i += 4) {
      const noise = (next() + next() + next() - 1.5) * 2 * scene.grain;
      for (let k = i; k < i + 3; k++) pixels[k] = (pixels[k] as number) + noise;
    }
    return pixels;
  };
}

/** Lays a photograph over pixels, each of its samples by its own share: the mean of what a pixel covers. */
function paste(
  pixels: Uint8ClampedArray,
  width: number,
  height: number,
  { photo, mirrored = false }: Actor,
  place: PictureRect,
): void {
  const [left, top] = [place.x * width, place.y * height];
  const [across, down] = [(place.width * width) / photo.width, (place.height * height) / photo.height];
  const columns = (x: number) => {
    const [from, to] = [(x - left) / across, (x + 1 - left) / across];
    return mirrored ? [photo.width - to, photo.width - from] : [from, to];
  };
  for (let y = Math.max(0, Math.floor(top)); y < Math.min(height, top + place.height * height); y++) {
    const rows = [(y - top) / down, (y + 1 - top) / down] as [number, number];
    for (let x = Math.max(0, Math.floor(left)); x < Math.min(width, left + place.width * width); x++) {
      const [r, g, b, cover] = meanOf(photo, columns(x) as [number, number], rows);
      const at = (y * width + x) * 4;
      [r, g, b].forEach((value, k) => {
        pixels[at + k] = (pixels[at + k] as number) * (1 - cover) + value * cover;
      });
    }
  }
}

/** Mean colour of a part of a photograph, and how much it covers, 0…1. */
function meanOf(
  { width, height, pixels }: Photograph,
  [left, right]: [number, number],
  [top, bottom]: [number, number],
): [number, number, number, number] {
  const sums = [0, 0, 0, 0];
  let count = 0;
  for (let y = Math.floor(top); y < Math.max(bottom, Math.floor(top) + 1); y++)
    for (let x = Math.floor(left); x < Math.max(right, Math.floor(left) + 1); x++) {
      count += 1;
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const at = (y * width + x) * 4;
      const cover = (pixels[at + 3] as number) / 255;
      for (let k = 0; k < 3; k++) sums[k] = (sums[k] as number) + (pixels[at + k] as number) * cover;
      sums[3] = (sums[3] as number) + cover;
    }
  const cover = sums[3] as number;
  const [r, g, b] = sums.map((sum) => (cover > 0 ? sum / cover : 0)) as [number, number, number];
  return [r, g, b, cover / count];
}
