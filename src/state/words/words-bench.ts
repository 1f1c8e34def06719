import { create } from 'zustand';
import type { ClipText } from '@core/words/clip-text';
import type { CanvasText } from '@core/words/canvas-text';

/** Parts of the words that can be worked on. */
export const WORDS_WORK = ['titles', 'captions', 'cover'] as const;
export type WordsWork = (typeof WORDS_WORK)[number];
export const BLOCK_PANELS = ['write', 'look', 'place', 'time', 'styles'] as const;
export type BlockPanel = (typeof BLOCK_PANELS)[number];
export const CAPTION_PANELS = ['cues', 'bring', 'tap', 'edit', 'look', 'limits'] as const;
export type CaptionPanel = (typeof CAPTION_PANELS)[number];

/** Words that are shown while a hand moves them, not yet a step of the job. */
export interface TextDraft {
  text: ClipText;
  /** Overrides of the canvas that is worked on. */
  canvasText: CanvasText;
}

interface WordsBench {
  work: WordsWork;
  panel: BlockPanel;
  captionPanel: CaptionPanel;
  /** The block and the cue that are worked on. */
  block: string | null;
  cue: string | null;
  /** The first cue that is listed; null for those around the one that is worked on. */
  cuePage: number | null;
  snaps: boolean;
  draft: TextDraft | null;
}

/** How the page of words is being worked with; none of it is part of the job. */
export const useWordsBench = create<WordsBench>(() => ({
  work: 'titles',
  panel: 'write',
  captionPanel: 'cues',
  block: null,
  cue: null,
  cuePage: null,
  snaps: true,
  draft: null,
}));
