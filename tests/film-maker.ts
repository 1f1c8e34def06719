import type { Grey } from '../src/core/pass/grey';
import { random } from './random';

/** Makes test films of natural-looking moving pictures as small grey frames, with the truth of their cuts. */

export const FILM_WIDTH = 160;
export const FILM_HEIGHT = 90;

/** Transition between two scenes of a film. */
export type Between = 'cut' | 'dissolve' | 'fade';

/** A film and what is true of it. */
export interface Film {
  frames: Grey[];
  cuts: number[];
  dissolves: { from: number; to: number }[];
  fades: { from: number; to: number }[];
  /** Frames of flashes and whip pans: nothing to report there. */
  traps: { kind: 'flash' | 'whip'; from: number; to: number }[];
}

const TILE = 256;

/** A tile of noise whose energy falls with frequency as in pictures of the world (about 1/f). */
function texture(next: () => number): Float32Array {
  const tile = new Float32Array(TILE * TILE);
  for (let cell = 128, gain = 1; cell >= 2; cell /= 2, gain *= 0.55) {
    const side = TILE / cell;
    const knots = Float32Array.from({ length: side * side }, () => next() - 0.5);
    const knot = (x: number, y: number) => knots[(y % side) * side + (x % side)] as number;
    for (let y = 0; y < TILE; y++) {
      const fy = y / cell;
      const y0 = Math.floor(fy);
      const v = smooth(fy - y0);
      for (let x = 0; x < TILE; x++) {
        const fx = x / cell;
        const x0 = Math.floor(fx);
        const u = smooth(fx - x0);
        const top = knot(x0, y0) * (1 - u) + knot(x0 + 1, y0) * u;
        const low = knot(x0, y0 + 1) * (1 - u) + knot(x0 + 1, y0 + 1) * u;
        tile[y * TILE + x] = (tile[y * TILE + x] as number) + gain * (top * (1 - v) + low * v);
      }
    }
  }
  return tile;
}

const smooth = (t: number): number => t * t * (3 - 2 * t);

interface Thing {
  x: number;
  y: number;
  vx: number;
  vy: number;
  r: number;
  tone: number;
  edge: number;
}

/** Scene: a textured ground that drifts and zooms, with a few things that move across it. */
class Scene {
  private readonly ground: Float32Array;
  private readonly start: { x: number; y: number };
  private readonly drift: { x: number; y: number };
  private readonly zoomBy: number;
  private readonly base: number;
  private readonly contrast: number;
  private readonly things: Thing[];
  /** Movement added from a frame on, for whip pans, in samples a frame. */
  whip: { from: number; to: number; speed: number } | null = null;

  constructor(private readonly next: () => number) {
    this.ground = texture(next);
    this.start = { x: next() * TILE, y: next() * TILE };
    this.drift = { x: (next() - 0.5) * 2.4, y: (next() - 0.5) * 0.8 };
    this.zoomBy = 1 + (next() - 0.5) * 0.006;
    this.base = 70 + next() * 110;
    this.contrast = 60 + next() * 110;
    this.things = Array.from({ length: 1 + Math.floor(next() * 4) }, () => ({
      x: next() * FILM_WIDTH,
      y: next() * FILM_HEIGHT,
      vx: (next() - 0.5) * 3,
      vy: (next() - 0.5) * 1.2,
      r: 6 + next() * 20,
      tone: 20 + next() * 215,
      edge: 1 + next() * 2,
    }));
  }

  private offset(n: number): number {
    if (!this.whip || n <= this.whip.from) return 0;
    const { from, to, speed } = this.whip;
    // A hand speeds up and slows down again.
    let total = 0;
    for (let k = from; k < Math.min(n, to); k++)
      total += speed * Math.sin((Math.PI * (k - from + 0.5)) / (to - from));
    return total;
  }

  /** Frame n, with sensor noise. */
  draw(n: number): Float32Array {
    const zoom = this.zoomBy ** n;
    const shift = this.offset(n);
    const speed = Math.abs(this.offset(n + 1) - shift);
    const smear = Math.max(1, Math.round(speed / 2));
    const sharp = this.sampled(n, zoom, shift, FILM_WIDTH + smear * 2);
    const out = new Float32Array(FILM_WIDTH * FILM_HEIGHT);
    for (let y = 0; y < FILM_HEIGHT; y++) {
      const row = y * (FILM_WIDTH + smear * 2);
      for (let x = 0; x < FILM_WIDTH; x++) {
        let sum = 0;
        for (let s = 0; s < smear; s++) sum += sharp[row + x + s] as number;
        out[y * FILM_WIDTH + x] = sum / smear + (this.next() - 0.5) * 5;
      }
    }
    return out;
  }

  private sampled(n: number, zoom: number, shift: number, width: number): Float32Array {
    const out = new Float32Array(width * FILM_HEIGHT);
    const left = this.start.x + this.drift.x * n + 8 * TILE + shift;
    const top = this.start.y + this.drift.y * n + 8 * TILE;
    const { ground, base, contrast } = this;
    for (let y = 0; y < FILM_HEIGHT; y++) {
      const gy = top + (y - FILM_HEIGHT / 2) * zoom;
      const y0 = Math.floor(gy);
      const v = gy - y0;
      const upper = (y0 % TILE) * TILE;
      const lower = ((y0 + 1) % TILE) * TILE;
      for (let x = 0; x < width; x++) {
        const gx = left + (x - FILM_WIDTH / 2) * zoom;
        const x0 = Math.floor(gx);
        const u = gx - x0;
        const i = x0 % TILE;
        const k = (x0 + 1) % TILE;
        const high = (ground[upper + i] as number) * (1 - u) + (ground[upper + k] as number) * u;
        const low = (ground[lower + i] as number) * (1 - u) + (ground[lower + k] as number) * u;
        out[y * width + x] = base + contrast * (high * (1 - v) + low * v);
      }
    }
    for (const thing of this.things) this.place(thing, n, shift, out, width);
    return out;
  }

  private place(thing: Thing, n: number, shift: number, out: Float32Array, width: number): void {
    const cx = thing.x + (thing.vx - this.drift.x * 0.3) * n - shift;
    const cy = thing.y + thing.vy * n;
    const reach = thing.r + thing.edge;
    for (let y = Math.max(0, Math.floor(cy - reach)); y < Math.min(FILM_HEIGHT, cy + reach); y++) {
      for (let x = Math.max(0, Math.floor(cx - reach)); x < Math.min(width, cx + reach); x++) {
        const dx = x - cx;
        const distance = Math.hypot(dx, (y - cy) * 1.2) - thing.r;
        if (distance > thing.edge) continue;
        const share = distance < 0 ? 1 : 1 - distance / thing.edge;
        const pixel = y * width + x;
        const value = out[pixel] as number;
        out[pixel] = value + (thing.tone + 12 * Math.sin(dx * 0.6) - value) * share;
      }
    }
  }
}

const finished = (values: Float32Array): Grey => ({
  width: FILM_WIDTH,
  height: FILM_HEIGHT,
  data: Uint8Array.from(values, (value) => Math.max(0, Math.min(255, Math.round(value)))),
});

/**
 * A film of scenes that follow each other as told, each 24 to 60 frames. Some scenes hold a flash or a whip pan.
 * @param traps share of scenes that hold one, 0…1.
 */
export function makeFilm(seed: number, betweens: readonly Between[], traps: number): Film {
  const next = random(seed);
  const film: Film = { frames: [], cuts: [], dissolves: [], fades: [], traps: [] };
  let scene = new Scene(next);
  let n = 0;
  for (let i = 0; i <= betweens.length; i++) {
    const body = 24 + Math.floor(next() * 36);
    const trap = next() < traps ? (next() < 0.5 ? 'flash' : 'whip') : null;
    const frame = n + 8 + Math.floor(next() * (body - 18));
    const length = trap === 'flash' ? 1 + Math.floor(next() * 3) : 8;
    if (trap === 'whip') scene.whip = { from: frame, to: frame + length, speed: 16 + next() * 20 };
    if (trap) {
      const start = film.frames.length + frame - n;
      film.traps.push({ kind: trap, from: start, to: start + length });
    }
    for (const end = n + body; n < end; n++) {
      const drawn = scene.draw(n);
      if (trap === 'flash' && n >= frame && n < frame + length) {
        const strength = 120 - ((n - frame) * 60) / length;
        film.frames.push(finished(drawn.map((value) => value * 1.2 + strength)));
      } else film.frames.push(finished(drawn));
    }
    const between = betweens[i];
    if (!between) break;
    const after = new Scene(next);
    if (between === 'cut') film.cuts.push(film.frames.length);
    else n = joinInto(film, between, scene, n, after, 8 + Math.floor(next() * 24));
    if (between === 'cut') n = 0;
    scene = after;
  }
  return film;
}

/** Adds the frames of a dissolve or a fade. @returns the frame that the next scene goes on at. */
function joinInto(film: Film, between: Between, a: Scene, n: number, b: Scene, length: number): number {
  const from = film.frames.length;
  for (let k = 0; k < length; k++) {
    const share = (k + 1) / (length + 1);
    const picture = a.draw(n + k);
    const two = b.draw(k);
    const weights =
      between === 'dissolve' ? [1 - share, share] : [Math.max(0, 1 - 2 * share), Math.max(0, 2 * share - 1)];
    const black = between === 'fade' ? 16 * (1 - (weights[0] as number) - (weights[1] as number)) : 0;
    film.frames.push(
      finished(
        picture.map(
          (value, i) => value * (weights[0] as number) + (two[i] as number) * (weights[1] as number) + black,
        ),
      ),
    );
  }
  const to = film.frames.length;
  if (between === 'dissolve') film.dissolves.push({ from, to });
  else film.fades.push({ from, to });
  return length;
}
