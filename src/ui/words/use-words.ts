import { useMemo } from 'react';
import { masterLengths, planOfJob } from '@core/check/check';
import { rangeStarts } from '@core/cut/cut';
import { activeCanvas } from '@core/job/clip';
import type { Canvas } from '@core/layout/canvas';
import type { CanvasRect } from '@core/picture/size';
import { blockRect } from '@core/render/overlays';
import { findPictureRect, type RenderPlan } from '@core/render/plan';
import { copyBlock, moveBlock, freshBlockId, withBlock } from '@core/words/block-list';
import type { Cue } from '@core/words/captions';
import { type CanvasText, PLAIN_CANVAS_TEXT, withPlace } from '@core/words/canvas-text';
import { type ClipText, NO_TEXT } from '@core/words/clip-text';
import { groundRect } from '@core/words/grounds';
import { toRelativeRect } from '@core/words/snap-box';
import type { Timeline } from '@core/words/spans';
import {
  resolveBlock,
  type BlockPlace,
  type OwnPlace,
  plainBlock,
  type TextBlock,
} from '@core/words/text-block';
import type { TextStyle } from '@core/words/text-style';
import type { ActOf } from '@core/job/commands/commands';
import { dispatch } from '@state/job';
import { player, type WordsDraft } from '@state/player';
import { type TextDraft, useWordsBench } from '@state/words';
import { useClip, useJob } from '../job/job-context';
import { useRuleSheets } from '../job/use-target';

/** The clip's cut at the rate of the canvas that is worked on. */
export function useTimeline(): Timeline {
  const job = useJob();
  const { cut, canvases, canvas } = useClip();
  const { rate } = canvases.find(({ id }) => id === canvas) ?? (canvases[0] as Canvas);
  return useMemo(() => {
    const masters = masterLengths(job);
    return { cut, starts: rangeStarts(cut, masters, rate), masters, rate };
  }, [job, cut, rate]);
}

/** The plan of the canvas that is worked on. */
export function useCanvasPlan(): RenderPlan {
  const { edit, masters } = useJob();
  const sheets = useRuleSheets();
  return useMemo(() => planOfJob({ edit, masters }, sheets), [edit, masters, sheets]);
}

/** The words on the picture as they are shown, and the ways to change the blocks among them. */
export interface WordsTools {
  canvas: Canvas;
  text: ClipText;
  canvasText: CanvasText;
  /** Area of the picture on a banded canvas; null where it covers all. */
  picture: CanvasRect | null;
  /** Side that is shown: the clip, its end card, or its cover. */
  side: WordsDraft['side'];
  /** The block that is worked on, as this canvas has it; null where none is. */
  block: TextBlock | null;
  /** True when this canvas has a place of its own for it. */
  alone: boolean;
  rectOf(block: BlockPlace): CanvasRect;
  add(change?: Partial<TextBlock>): void;
  copy(): void;
  /** A copy at a place, which is then worked on. */
  copyTo(block: TextBlock, rect: CanvasRect): void;
  remove(): void;
  order(by: number): void;
  /** Shows words of the block, or all cues, while they are typed. */
  showText(text: string): void;
  showCues(cues: Cue[]): void;
  change(act: ActOf<'set-blocks'>, change: Partial<TextBlock>, joins?: string): void;
  style(change: Partial<TextStyle>, joins?: string): void;
  /** Moves the block on every canvas, or on this one where it has a place of its own. */
  place(change: Partial<BlockPlace>, done: boolean): void;
  moveTo(rect: CanvasRect, done: boolean): void;
  setAlone(alone: boolean): void;
  setShown(shown: boolean): void;
}

/** Makes a canvas's own place of a block, begun with what all have. */
const toOwnPlace = (block: TextBlock): OwnPlace => ({
  block: block.id,
  on: block.on,
  box: block.box,
  seat: block.seat,
  fitted: block.fitted,
  size: block.style.size,
  shown: true,
});

export function useWords(): WordsTools {
  const { id } = useJob();
  const clip = useClip();
  const canvas = activeCanvas(clip);
  const plan = useCanvasPlan();
  const picture = useMemo(() => findPictureRect(plan), [plan]);
  const draft = useWordsBench((state) => state.draft);
  const chosen = useWordsBench((state) => state.block);
  const kept = { text: clip.text ?? NO_TEXT, canvasText: canvas.text ?? PLAIN_CANVAS_TEXT };
  const { text, canvasText } = draft ?? kept;
  const shared = text.blocks.find((block) => block.id === chosen) ?? null;
  const own = canvasText.places.find((place) => place.block === chosen);
  const block = shared && (resolveBlock(shared, own?.shown === false ? [] : canvasText.places) ?? shared);
  const work = useWordsBench((state) => state.work);
  const side = work === 'cover' ? 'cover' : block?.on === 'card' ? 'card' : 'clip';
  const show = (next: TextDraft | null) => {
    useWordsBench.setState({ draft: next });
    const canvases = clip.canvases.map((other) =>
      next && other.id === canvas.id ? { ...other, text: next.canvasText } : other,
    );
    player.setWordsDraft(next || side !== 'clip' ? { text: next?.text ?? kept.text, canvases, side } : null);
  };
  const setBlocks = (act: ActOf<'set-blocks'>, blocks: TextBlock[], joins?: string) =>
    dispatch(id, { type: 'set-blocks', act, blocks }, joins);
  const setOwn = (act: ActOf<'set-canvas-text'>, next: CanvasText, joins?: string) =>
    dispatch(id, { type: 'set-canvas-text', act, canvas: canvas.id, text: next }, joins);
  const choose = (next: string | null) => useWordsBench.setState({ block: next });
  const { blocks } = kept.text;
  const place: WordsTools['place'] = (change, done) => {
    if (!shared) return;
    const next: TextDraft = own
      ? { text: kept.text, canvasText: withPlace(kept.canvasText, shared.id, { ...own, ...change }) }
      : {
          text: { ...kept.text, blocks: withBlock(blocks, shared.id, (old) => ({ ...old, ...change })) },
          canvasText: kept.canvasText,
        };
    if (!done) return show(next);
    if (own) setOwn('alone', next.canvasText);
    else setBlocks('place', next.text.blocks);
    show(null);
  };
  const toGround = (on: BlockPlace['on']) => groundRect(on, canvas, picture);
  return {
    canvas,
    text,
    canvasText,
    picture,
    side,
    block,
    alone: own !== undefined,
    rectOf: (of) => blockRect(of, canvas, picture),
    add(change = {}) {
      const fresh = { ...plainBlock(freshBlockId(blocks), 'Your words'), ...change };
      setBlocks('add', [...blocks, fresh]);
      choose(fresh.id);
    },
    copy() {
      if (!shared) return;
      const copied = copyBlock(blocks, shared);
      setBlocks('copy', copied.blocks);
      choose(copied.id);
    },
    copyTo(of, rect) {
      const fresh = { ...of, id: freshBlockId(blocks), box: toRelativeRect(rect, toGround(of.on)) };
      setBlocks('copy', [...blocks, fresh]);
      choose(fresh.id);
    },
    remove() {
      if (!shared) return;
      setBlocks(
        'remove',
        blocks.filter((other) => other.id !== shared.id),
      );
      choose(null);
    },
    showText(written) {
      if (!shared) return;
      const own = withBlock(blocks, shared.id, (old) => ({ ...old, text: written }));
      player.setWordsDraft({ text: { ...kept.text, blocks: own }, canvases: clip.canvases, side });
    },
    showCues: (cues) =>
      player.setWordsDraft({
        text: { ...kept.text, captions: { ...kept.text.captions, cues } },
        canvases: clip.canvases,
        side,
      }),
    order: (by) => shared && setBlocks('order', moveBlock(blocks, shared.id, by), 'order'),
    change(act, change, joins) {
      if (!shared) return;
      setBlocks(
        act,
        withBlock(blocks, shared.id, (old) => ({ ...old, ...change })),
        joins && `${joins}-${shared.id}`,
      );
    },
    style(change, joins) {
      if (!shared) return;
      const { size } = change;
      // The size of a block that goes its own way here is this canvas's own.
      if (own && size !== undefined) {
        return setOwn('alone', withPlace(kept.canvasText, shared.id, { ...own, size }), `size-${shared.id}`);
      }
      setBlocks(
        'style',
        withBlock(blocks, shared.id, (old) => ({ ...old, style: { ...old.style, ...change } })),
        joins && `${joins}-${shared.id}`,
      );
    },
    place,
    moveTo: (rect, done) => block && place({ box: toRelativeRect(rect, toGround(block.on)) }, done),
    setAlone(alone) {
      if (!shared) return;
      const next = withPlace(kept.canvasText, shared.id, alone ? toOwnPlace(shared) : null);
      setOwn(alone ? 'alone' : 'together', next);
    },
    setShown(shown) {
      if (!shared) return;
      setOwn('hide', withPlace(kept.canvasText, shared.id, { ...(own ?? toOwnPlace(shared)), shown }));
    },
  };
}
