import type { CanvasRect, Rect, Size } from '../picture/size';
import { chooseReadableColour } from '../words/banded-clip';
import { captionBox } from '../words/caption-place';
import { isBurnt, PLAIN_CANVAS_TEXT } from '../words/canvas-text';
import type { Captions, Cue } from '../words/captions';
import type { ClipText, EndCard } from '../words/clip-text';
import { groundRect, isOffBand } from '../words/grounds';
import { spokenStarts, locateWords } from '../words/speech-rhythm';
import { type Stretch, toProgress, toStretches, type Timeline } from '../words/spans';
import type { TextArt } from '../words/text-art';
import { isOwnFamily } from '../words/families';
import { resolveBlock, type BlockPlace, type TextBlock } from '../words/text-block';
import { PLAIN_PLATE, PLAIN_STYLE, type TextStyle } from '../words/text-style';
import type { Canvas } from '../layout/canvas';
import { rateValue } from '../time/frame-rate';

/** Words over a run of output frames. */
export interface PlanOverlay extends Stretch {
  /** Frames that it takes to come and to go. */
  fade: number;
  art: TextArt;
}

/** Subjects that captions keep clear of, and when they are where: pixels of the canvas. */
export interface SeenSubject extends Stretch {
  rect: CanvasRect;
}

/** Input that overlays are planned from besides a clip's words. */
export interface OverlayInput {
  timeline: Timeline;
  /** Frames of the clip with its card, and those of the card. */
  frames: number;
  cardFrames: number;
  /** Maximum area of the picture; null where it covers the whole canvas. */
  picture: CanvasRect | null;
  /** Zones that the outlet puts over the picture, 0…1 of the canvas. */
  zones: readonly Rect[];
  subjects: readonly SeenSubject[];
}

/** Plans what lies over the pictures of a canvas, in drawing order. */
export function planOverlays(canvas: Canvas, text: ClipText, input: OverlayInput): PlanOverlay[] {
  const { places, captions: way } = canvas.text ?? PLAIN_CANVAS_TEXT;
  const blocks = text.blocks.flatMap((block) => {
    const own = resolveBlock(block, places);
    // What lies on the cover alone is never seen in the clip.
    return own && own.on !== 'cover' && own.text.trim() !== '' ? blockOverlays(own, canvas, input) : [];
  });
  const cues = isBurnt(way) ? cueOverlays(text.captions, canvas, blocks, input) : [];
  return [...cardOverlays(text.card, canvas, input), ...blocks, ...cues];
}

function cardOverlays(card: EndCard | null, canvas: Size, input: OverlayInput): PlanOverlay[] {
  if (!card || input.cardFrames === 0) return [];
  const { width, height } = canvas;
  const art: TextArt = {
    text: '',
    style: PLAIN_STYLE,
    box: { x: 0, y: 0, width, height },
    seat: 'middle',
    size: null,
    mark: null,
    ground: card.colour,
  };
  return [{ from: input.frames - input.cardFrames, to: input.frames, fade: 0, art }];
}

/** Where a block lies on a canvas, in pixels. */
export function blockRect({ on, box }: BlockPlace, canvas: Size, picture: CanvasRect | null): CanvasRect {
  const ground = groundRect(on, canvas, picture);
  return {
    x: Math.round(ground.x + box.x * ground.width),
    y: Math.round(ground.y + box.y * ground.height),
    width: Math.max(2, Math.round(box.width * ground.width)),
    height: Math.max(2, Math.round(box.height * ground.height)),
  };
}

function blockOverlays(block: TextBlock, canvas: Canvas, input: OverlayInput): PlanOverlay[] {
  const { text, style, seat, fitted, spans, on } = block;
  const art: TextArt = {
    text,
    style: isOffBand(on, canvas, input.picture) ? legible(style) : style,
    box: blockRect(block, canvas, input.picture),
    seat,
    size: fitted ? null : toPixels(canvas, style.size),
    mark: null,
    ground: null,
  };
  const shown = input.frames - input.cardFrames;
  const stretches =
    on === 'card'
      ? [{ from: shown, to: input.frames }]
      : spans
        ? toStretches(spans, input.timeline)
        : [{ from: 0, to: shown }];
  const fade = Math.round(block.fade * rateValue(canvas.rate));
  return stretches.filter(({ from, to }) => to > from).map((stretch) => ({ ...stretch, fade, art }));
}

/** A style that was made for a band's plain colour, with something behind the letters where it lies on a picture. */
function legible(style: TextStyle): TextStyle {
  if (style.plate || style.outline) return style;
  return { ...style, plate: { ...PLAIN_PLATE, colour: chooseReadableColour(style.colour), cover: 1 } };
}

/** The size of letters on a canvas, in pixels. @param share of its shorter side. */
const toPixels = ({ width, height }: Size, share: number): number =>
  Math.round(share * Math.min(width, height) * 2) / 2;

function cueOverlays(
  captions: Captions,
  canvas: Canvas,
  blocks: readonly PlanOverlay[],
  input: OverlayInput,
): PlanOverlay[] {
  const { width, height } = canvas;
  const zones = input.zones.map((zone) => ({
    x: zone.x * width,
    y: zone.y * height,
    width: zone.width * width,
    height: zone.height * height,
  }));
  const size = toPixels(canvas, captions.style.size);
  const boxes = new Map<string, CanvasRect>();
  /** Most captions have the same lines and the same around them. */
  const toBox = (lines: number, taken: readonly CanvasRect[]): CanvasRect => {
    const key = `${lines} ${taken.map(({ x, y, width, height }) => `${x} ${y} ${width} ${height}`).join()}`;
    const box = boxes.get(key) ?? captionBox(captions, lines, canvas, [...zones, ...taken]);
    boxes.set(key, box);
    return box;
  };
  return captions.cues.flatMap((cue) =>
    toStretches(cue.spans, input.timeline).flatMap((stretch) => {
      const during = (other: Stretch) => other.from < stretch.to && other.to > stretch.from;
      const taken = [
        ...blocks.filter(during).map((block) => block.art.box),
        ...input.subjects.filter(during).map((subject) => subject.rect),
      ];
      const art: TextArt = {
        text: cue.text,
        style: captions.style,
        box: toBox(Math.max(captions.limits.lines, cue.text.split('\n').length), taken),
        seat: captions.seat,
        size,
        mark: null,
        ground: null,
      };
      return captions.spoken
        ? spokenOverlays(cue, stretch, art, captions.spoken, input.timeline)
        : [{ ...stretch, fade: 0, art }];
    }),
  );
}

/**
 * A caption word by word: as many overlays as there are words in a stretch of it, one after another. A word is spoken
 * at its place in the master, also where the cut leaves some of the caption out.
 */
function spokenOverlays(
  cue: Cue,
  { from, to }: Stretch,
  art: TextArt,
  colour: string,
  timeline: Timeline,
): PlanOverlay[] {
  const words = locateWords(cue.text);
  const starts = cue.words?.length === words.length ? cue.words : spokenStarts(cue.text);
  return words.flatMap((word, i) => {
    const spans = toProgress(cue.spans, i === 0 ? 0 : (starts[i] ?? 1), starts[i + 1] ?? 1, timeline.masters);
    return toStretches(spans, timeline).flatMap((stretch): PlanOverlay[] => {
      const shown = { from: Math.max(from, stretch.from), to: Math.min(to, stretch.to) };
      if (shown.to <= shown.from) return [];
      return [{ ...shown, fade: 0, art: { ...art, mark: { ...word, colour } } }];
    });
  });
}

/** Families of a person's own that overlays are drawn with. */
export const listOwnFamilies = (overlays: readonly PlanOverlay[]): string[] => [
  ...new Set(overlays.map(({ art }) => art.style.family).filter(isOwnFamily)),
];

/** How much of an overlay is there at an output frame that it is over, 0…1. */
export function presence({ from, to, fade }: PlanOverlay, frame: number): number {
  if (fade === 0) return 1;
  const [come, go] = [(frame - from + 1) / (fade + 1), (to - frame) / (fade + 1)];
  return Math.min(1, come, go);
}

/** The overlays of a list that are over an output frame, in drawing order. */
export const findOverlays = (overlays: readonly PlanOverlay[], frame: number): PlanOverlay[] =>
  overlays.filter(({ from, to }) => frame >= from && frame < to);
