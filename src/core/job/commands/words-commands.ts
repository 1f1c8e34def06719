import { z } from 'zod';
import { memoizeSchema } from '../../figures/memoize-schema';
import type { Canvas } from '../../layout/canvas';
import { layoutSchema } from '../../layout/layout';
import { canvasTextSchema } from '../../words/canvas-text';
import { captionsSchema, cueSchema, MAX_CUES } from '../../words/captions';
import { cardSchema, type ClipText, coverSchema, NO_TEXT } from '../../words/clip-text';
import { type TextBlock, textBlockSchema } from '../../words/text-block';
import type { Edit } from '../job';
import { listActs, command, withCanvas, withClip } from './command';

/** Most cues are those that were there before: thousands are not looked at again for one that was changed. */
const knownCueSchema = memoizeSchema(cueSchema);

const BLOCK_ACTS = {
  add: 'add a text block',
  remove: 'remove a text block',
  copy: 'copy a text block',
  write: 'change the words of a block',
  place: 'move a text block',
  style: 'change the style of a block',
  time: 'change when a block is seen',
  order: 'change the order of blocks',
};
const CUE_ACTS = {
  read: 'bring captions in',
  script: 'make captions from a script',
  write: 'change the words of a cue',
  time: 'change the times of a cue',
  tap: 'tap the start of a cue',
  split: 'split a cue',
  merge: 'merge cues',
  remove: 'remove a cue',
  add: 'add a cue',
  shift: 'shift captions',
  stretch: 'stretch captions',
  replace: 'replace words in captions',
  mend: 'mend captions',
};
const CAPTION_ACTS = { look: 'change how captions look', limits: 'change the limits of captions' };
const CANVAS_ACTS = {
  alone: 'place a block on one canvas alone',
  together: 'place a block with the others again',
  hide: 'hide a block on a canvas',
  captions: 'choose how captions go out',
};

/** A change of a clip's words on the picture. */
const withText = (edit: Edit, change: (text: ClipText) => ClipText): Edit =>
  withClip(edit, (clip) => ({ ...clip, text: change(clip.text ?? NO_TEXT) }));

/** A change of a clip's blocks: what canvases have of their own of blocks that are gone goes with these. */
const withBlocks = (edit: Edit, blocks: TextBlock[]): Edit =>
  withClip(
    withText(edit, (text) => ({ ...text, blocks })),
    (clip) => ({ ...clip, canvases: clip.canvases.map((canvas) => withPlacesOf(canvas, blocks)) }),
  );

function withPlacesOf(canvas: Canvas, blocks: readonly TextBlock[]): Canvas {
  const { text } = canvas;
  const places = text?.places.filter((place) => blocks.some((block) => block.id === place.block));
  return !text || !places || places.length === text.places.length
    ? canvas
    : { ...canvas, text: { ...text, places } };
}

/** The words on the picture. */
export const WORDS_COMMANDS = {
  'set-blocks': command({
    schema: z.object({ act: z.enum(listActs(BLOCK_ACTS)), blocks: z.array(textBlockSchema) }),
    label: BLOCK_ACTS,
    apply: (edit, { blocks }) => withBlocks(edit, blocks),
  }),
  'set-cues': command({
    schema: z.object({ act: z.enum(listActs(CUE_ACTS)), cues: z.array(knownCueSchema).max(MAX_CUES) }),
    label: CUE_ACTS,
    apply: (edit, { cues }) => withText(edit, (text) => ({ ...text, captions: { ...text.captions, cues } })),
  }),
  'set-captions': command({
    schema: z.object({ act: z.enum(listActs(CAPTION_ACTS)), captions: captionsSchema.omit({ cues: true }) }),
    label: CAPTION_ACTS,
    apply: (edit, { captions }) =>
      withText(edit, (text) => ({ ...text, captions: { ...captions, cues: text.captions.cues } })),
  }),
  'set-card': command({
    schema: z.object({ card: cardSchema.nullable() }),
    label: 'change the end card',
    apply: (edit, { card }) => withText(edit, (text) => ({ ...text, card })),
  }),
  'set-cover': command({
    schema: z.object({ cover: coverSchema }),
    label: 'choose the cover',
    apply: (edit, { cover }) => withText(edit, (text) => ({ ...text, cover })),
  }),
  'set-canvas-text': command({
    schema: z.object({ act: z.enum(listActs(CANVAS_ACTS)), canvas: z.string(), text: canvasTextSchema }),
    label: CANVAS_ACTS,
    apply: (edit, { canvas, text }) =>
      withClip(edit, (clip) => withCanvas(clip, canvas, (old) => ({ ...old, text }))),
  }),
  /** Bands with words: the canvas gets its layout and the clip its blocks in one step. */
  'make-banded': command({
    schema: z.object({ canvas: z.string(), layout: layoutSchema, blocks: z.array(textBlockSchema) }),
    label: 'make a banded clip',
    apply: (edit, { canvas, layout, blocks }) =>
      withClip(withBlocks(edit, blocks), (clip) => withCanvas(clip, canvas, (old) => ({ ...old, layout }))),
  }),
};
