import type { Range } from '../cut/cut';
import { toFrame, toSeconds } from '../time/frame-rate';
import type { Cue } from './captions';
import type { FileCue } from './files/caption-file';
import type { WrittenCue } from './files/write-captions';
import { type Spans, toSpans, type Stretch, toStretches, type Timeline } from './spans';

/** A cue, and when it is on screen in the clip. */
export interface ListedCue {
  cue: Cue;
  /** The first time, in output frames; null while what it belongs to is not in the cut. */
  at: Stretch | null;
}

/** The cues of a clip in the order in which they are seen; after them those that the cut leaves out. */
export function listCues(cues: readonly Cue[], timeline: Timeline): ListedCue[] {
  const listed = cues.map((cue): ListedCue => ({ cue, at: toStretches(cue.spans, timeline)[0] ?? null }));
  return listed.sort((a, b) => (a.at?.from ?? Infinity) - (b.at?.from ?? Infinity) || 0);
}

/** The cue that is on screen at an output frame. */
export const findCue = (listed: readonly ListedCue[], frame: number): ListedCue | null =>
  listed.find(({ at }) => at !== null && frame >= at.from && frame < at.to) ?? null;

/** Names for new cues: the first numbers that none has. */
export function freshCueIds(cues: readonly Cue[], count: number): string[] {
  const taken = new Set(cues.map((cue) => cue.id));
  const ids: string[] = [];
  for (let n = 1; ids.length < count; n++) if (!taken.has(`cue-${n}`)) ids.push(`cue-${n}`);
  return ids;
}

/** Time base of a file's captions. */
export type TimedTo = { kind: 'clip' } | { kind: 'master'; master: string; frames: number };

/**
 * Captions of a file as cues of a clip.
 * @returns those that have a place, and those that lie outside what they are timed to.
 */
export function toFileCues(
  file: readonly FileCue[],
  timedTo: TimedTo,
  timeline: Timeline,
  before: readonly Cue[] = [],
): { cues: Cue[]; outside: FileCue[] } {
  const ids = freshCueIds(before, file.length);
  const cues: Cue[] = [];
  const outside: FileCue[] = [];
  for (const [i, found] of file.entries()) {
    const spans =
      timedTo.kind === 'clip'
        ? toSpans(toStretch(found, timeline), timeline)
        : spansInMaster(found, timedTo, timeline);
    if (!spans) outside.push(found);
    else
      cues.push({
        id: ids[i] as string,
        text: found.text,
        spans,
        ...(found.words && { words: found.words }),
      });
  }
  return { cues, outside };
}

/** The frame nearest to a moment: a caption begins on the frame that its time means. */
const nearestFrame = (seconds: number, rate: Timeline['rate']): number =>
  toFrame(seconds + toSeconds(1, rate) / 2, rate);

function toStretch({ start, end }: FileCue, { rate }: Timeline): Stretch {
  const from = nearestFrame(start, rate);
  return { from, to: Math.max(from + 1, nearestFrame(end, rate)) };
}

function spansInMaster(
  { start, end }: FileCue,
  { master, frames }: Extract<TimedTo, { kind: 'master' }>,
  { masters }: Timeline,
): Spans | null {
  const { rate } = masters(master);
  const first = nearestFrame(start, rate);
  if (first >= frames) return null;
  return [{ master, in: first, out: Math.min(frames, Math.max(first + 1, nearestFrame(end, rate))) }];
}

/** Cues as they are written beside a clip: seconds of it, in order. */
export function toWrittenCues(cues: readonly Cue[], timeline: Timeline): WrittenCue[] {
  return cues
    .flatMap(({ text, spans }) =>
      toStretches(spans, timeline).map(({ from, to }) => ({
        start: toSeconds(from, timeline.rate),
        end: toSeconds(to, timeline.rate),
        text,
      })),
    )
    .sort((a, b) => a.start - b.start);
}

/** A range of a master moved by frames, as far as the master goes. */
export function shiftSpan(span: Range, by: number, frames: number): Range {
  const length = span.out - span.in;
  const first = Math.min(Math.max(0, span.in + by), Math.max(0, frames - length));
  return { ...span, in: first, out: first + length };
}
