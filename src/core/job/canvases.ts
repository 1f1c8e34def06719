import { createName } from '../figures/fresh-name';
import { findLevel } from '../rate/level';
import { type FrameRate, rateLabel } from '../time/frame-rate';
import { type Canvas, makeCanvas, canvasSizeSchema, MIN_SIDE, MAX_SIDE } from '../layout/canvas';
import type { Preset } from '../layout/preset';
import type { Size } from '../picture/size';
import { activeCanvas, type Clip } from './clip';

/** The canvases of a clip after a change, and the one to work on. */
export interface Canvases {
  canvases: Canvas[];
  canvas: string;
}

/** Ratios that canvases are made in (common practice, no source), by their shorter side of 1080. */
export const RATIOS: readonly (Size & { name: string })[] = [
  { name: '9:16', width: 1080, height: 1920 },
  { name: '2:3', width: 1080, height: 1620 },
  { name: '3:4', width: 1080, height: 1440 },
  { name: '4:5', width: 1080, height: 1350 },
  { name: '1:1', width: 1080, height: 1080 },
  { name: '5:4', width: 1350, height: 1080 },
  { name: '16:9', width: 1920, height: 1080 },
];

/** Width and height as typed, or why they cannot be a canvas's. @param rate that the canvas would run at. */
export function ownSize(width: number, height: number, rate: FrameRate): Size | { problem: string } {
  const size = { width, height };
  if (canvasSizeSchema.safeParse(size).success) {
    if (findLevel(size, rate, 0) !== null) return size;
    const problem = `No H.264 file can hold ${width}×${height} at ${rateLabel(rate)} fps. Make one side smaller.`;
    return { problem };
  }
  return { problem: `Both sides must be even, from ${MIN_SIDE} to ${MAX_SIDE}.` };
}

const freshId = (canvases: readonly Canvas[]): string =>
  createName('canvas', new Set(canvases.map((canvas) => canvas.id)));

/** The first dye that no canvas wears. */
function freshDye(canvases: readonly Canvas[]): number {
  for (let n = 0; ; n++) if (!canvases.some((canvas) => canvas.dye === n)) return n;
}

/** A clip's canvases with one more, at the rate of the one being worked on. */
export function addCanvas(clip: Clip, size: Size, placement: string | null): Canvases {
  const { canvases } = clip;
  const id = freshId(canvases);
  const { rate } = activeCanvas(clip);
  const added = { ...makeCanvas(placement, size, rate, id), dye: freshDye(canvases) };
  return { canvases: [...canvases, added], canvas: id };
}

/** A clip's canvases with one more, as a preset says. */
export function addPreset(clip: Clip, { name: _name, ...made }: Preset): Canvases {
  const { canvases } = clip;
  const added = { ...made, id: freshId(canvases), dye: freshDye(canvases), detached: [] };
  return { canvases: [...canvases, added], canvas: added.id };
}

/** A clip's canvases with a copy of one behind it. */
export function duplicateCanvas({ canvases }: Clip, id: string): Canvases {
  const copy = freshId(canvases);
  const dye = freshDye(canvases);
  return {
    canvases: canvases.flatMap((canvas) =>
      canvas.id === id ? [canvas, { ...canvas, id: copy, dye }] : [canvas],
    ),
    canvas: copy,
  };
}

/** A clip's canvases without one; the last one stays. */
export function removeCanvas(clip: Clip, id: string): Canvases {
  const canvases = clip.canvases.filter((canvas) => canvas.id !== id);
  const [first] = canvases;
  if (!first) return { canvases: clip.canvases, canvas: clip.canvas };
  return { canvases, canvas: clip.canvas === id ? first.id : clip.canvas };
}

/** A clip's canvases with one moved by some places. */
export function moveCanvas(clip: Clip, id: string, by: number): Canvases {
  const canvases = [...clip.canvases];
  const index = canvases.findIndex((canvas) => canvas.id === id);
  const [canvas] = canvases.splice(index, 1);
  if (canvas) canvases.splice(Math.min(Math.max(index + by, 0), canvases.length), 0, canvas);
  return { canvases, canvas: clip.canvas };
}

/** A clip's canvases with one changed. */
export function changeCanvas(clip: Clip, id: string, change: Partial<Omit<Canvas, 'id'>>): Canvases {
  const canvases = clip.canvases.map((canvas) => (canvas.id === id ? { ...canvas, ...change } : canvas));
  return { canvases, canvas: clip.canvas };
}
