import { clamp, type Rect, type Size } from '../picture/size';
import type { ClipText } from './clip-text';

/** The part of a canvas that a cover of another ratio shows: its middle, as large as it goes. 0…1 of the canvas. */
export function coverCrop(canvas: Size, cover: Size): Rect {
  const [own, asked] = [canvas.width / canvas.height, cover.width / cover.height];
  const [width, height] = own > asked ? [asked / own, 1] : [1, own / asked];
  return { x: (1 - width) / 2, y: (1 - height) / 2, width, height };
}

/** The words that a cover has: those of its own, on its one frame. */
export const coverText = (text: ClipText): ClipText => ({
  ...text,
  card: null,
  captions: { ...text.captions, cues: [] },
  blocks: text.blocks
    .filter((block) => block.on === 'cover')
    .map((block) => ({ ...block, on: 'canvas' as const, spans: null, fade: 0 })),
});

/** Facts of a frame that might be a cover. */
export interface CoverFacts {
  /** Of the clip. */
  frame: number;
  /** How much neighbouring samples differ, and how light they are, 0…255. */
  detail: number;
  light: number;
  /** Frames to the nearest cut, and whether somebody who is known is in view. */
  fromCut: number;
  subject: boolean;
}

/** Light that suits a cover best, and how far from it counts fully. */
const BEST_LIGHT = 130;
const LIGHT_REACH = 110;
/** This far from a cut a frame is clear of it, in seconds. */
const CLEAR = 0.5;

/** How well a frame would do as a cover, over the others; more is better. */
function coverScore({ detail, light, fromCut, subject }: CoverFacts, most: number, rate: number): number {
  const sharp = most > 0 ? detail / most : 0;
  const bright = 1 - clamp(Math.abs(light - BEST_LIGHT) / LIGHT_REACH, 0, 1);
  const clear = clamp(fromCut / (CLEAR * rate), 0, 1);
  return sharp + 0.7 * bright + 0.5 * clear + (subject ? 0.8 : 0);
}

/** The best frames for a cover, no two of them near each other. @param rate of the clip, frames a second. */
export function listProposedCovers(facts: readonly CoverFacts[], count: number, rate: number): number[] {
  const most = Math.max(0, ...facts.map(({ detail }) => detail));
  const last = Math.max(0, ...facts.map(({ frame }) => frame));
  const apart = Math.max(1, Math.min(3 * rate, last / (2 * count)));
  const ranked = [...facts].sort((a, b) => coverScore(b, most, rate) - coverScore(a, most, rate));
  const taken: number[] = [];
  for (const { frame } of ranked) {
    if (taken.length < count && taken.every((other) => Math.abs(other - frame) >= apart)) taken.push(frame);
  }
  return taken;
}

/** Detail and light of a small grey picture: what is soft or dark makes a poor cover. */
export function greyFacts({ width, height, data }: { width: number; height: number; data: Uint8Array }): {
  detail: number;
  light: number;
} {
  let [sum, steps] = [0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const value = data[y * width + x] as number;
      sum += value;
      if (x > 0) steps += Math.abs(value - (data[y * width + x - 1] as number));
      if (y > 0) steps += Math.abs(value - (data[(y - 1) * width + x] as number));
    }
  }
  const count = Math.max(1, width * height);
  return { detail: steps / (2 * count), light: sum / count };
}
