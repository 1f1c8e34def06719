import { memoize } from '../figures/memoize';
import { shortHash } from '../figures/short-hash';
import { toDrawnFraming, type Framing } from '../framing/framing';
import type { ClipText } from '../words/clip-text';
import { activeCanvas } from './clip';
import { activeClip, type Edit } from './job';

/** The shots that the clip being worked on keeps a piece of, also those of masters that are one shot. */
function shotsInClip(edit: Edit) {
  const { cut } = activeClip(edit);
  const kept = edit.shots.filter((shot) =>
    cut.some((range) => range.master === shot.master && range.in < shot.out && range.out > shot.in),
  );
  const ids = new Set([...kept.map((shot) => shot.id), ...cut.map((range) => `${range.master}-1`)]);
  return { kept, ids };
}

/**
 * Computes a hash of everything that the picture and sound of an export depend on: two edits with the same
 * hash make the same clip. Shots outside the clip do not count.
 * Reckoned once for a canvas until something of that changes: a page of twelve clips asks for many, many
 * times.
 * @param made how its file is made, where something of that was chosen.
 */
export function computeSignature(
  edit: Edit,
  made: unknown = activeCanvas(activeClip(edit)).encoding ?? null,
): string {
  return hashClip(edit, made);
}

/** Collects the parts of an edit that a signature is hashed from: the same objects give the same signature. */
function collectParts(edit: Edit, made: unknown): [object, ...unknown[]] {
  const clip = activeClip(edit);
  return [activeCanvas(clip), clip.cut, edit.shots, edit.framings, edit.repairs, clip.text, made, clip.id];
}

const hashClip = memoize((edit: Edit, made: unknown): string => {
  const clip = activeClip(edit);
  const { kept, ids } = shotsInClip(edit);
  const used = new Set(clip.cut.map((range) => range.master));
  const ours = (framings: readonly Framing[]) =>
    framings.filter((framing) => ids.has(framing.shot)).map(toDrawnFraming);
  const { width, height, rate, layout, detached, text, placement, also } = activeCanvas(clip);
  return shortHash([
    clip.id,
    clip.cut,
    kept.map(({ id, master, in: first, out, live }) => [id, master, first, out, live]),
    ours(edit.framings),
    Object.entries(edit.repairs).filter(([master]) => used.has(master)),
    [width, height, rate, layout, ours(detached)],
    made,
    // Clips without words keep the signatures that they had before there were any.
    ...(clip.text ? [drawnText(clip.text), text] : []),
    // Captions keep clear of what its placements lay over the picture.
    ...(clip.text?.captions.cues.length ? [[placement, ...(also ?? [])]] : []),
  ]);
}, collectParts);

/** Part of the words that is drawn on the clip: without the limits of captions, and nothing of the cover. */
function drawnText({ cover: _cover, ...text }: ClipText): unknown {
  const { limits: _limits, ...captions } = text.captions;
  return { ...text, captions, blocks: text.blocks.filter((block) => block.on !== 'cover') };
}
