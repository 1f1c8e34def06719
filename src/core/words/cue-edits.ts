import type { Range } from '../cut/cut';
import { scaleFrames } from '../time/frame-rate';
import { type Cue, MAX_CUE_TEXT, MAX_CUES } from './captions';
import { freshCueIds, type ListedCue, listCues, shiftSpan } from './cue-list';
import { countSyllables, locateWords } from './speech-rhythm';
import { type Spans, toSpans, type Stretch, toStretches, type Timeline } from './spans';

/** Cues with one of them changed. */
export const withCue = (cues: readonly Cue[], id: string, change: (cue: Cue) => Cue): Cue[] =>
  cues.map((cue) => (cue.id === id ? change(cue) : cue));

/** A cue with other words: times of words are kept only while there are as many. */
export function rewordCue(cue: Cue, text: string): Cue {
  const { words, ...rest } = cue;
  const kept = words?.length === locateWords(text).length;
  return { ...rest, text, ...(kept && { words }) };
}

/** A cue at another time of the clip; the same where that is outside the cut. */
export function moveCue(cue: Cue, stretch: Stretch, timeline: Timeline): Cue {
  const from = Math.max(0, stretch.from);
  const spans = toSpans({ from, to: Math.max(from + 1, stretch.to) }, timeline);
  return spans ? { ...cue, spans } : cue;
}

/** How long a text takes to say, in syllables. */
const spokenLength = (text: string): number =>
  locateWords(text).reduce((sum, { from, to }) => sum + countSyllables(text.slice(from, to)), 0);

/**
 * A cue divided at a place of its text, its time shared by syllables; null where one half would have no words, or the
 * clip has as many cues as it can hold.
 */
export function splitCue(
  cues: readonly Cue[],
  { cue, at }: ListedCue,
  place: number,
  timeline: Timeline,
): Cue[] | null {
  const [first, second] = [cue.text.slice(0, place).trim(), cue.text.slice(place).trim()];
  if (first === '' || second === '' || !at || at.to - at.from < 2 || cues.length >= MAX_CUES) return null;
  const share = spokenLength(first) / (spokenLength(first) + spokenLength(second));
  const middle = Math.min(at.to - 1, Math.max(at.from + 1, at.from + Math.round(share * (at.to - at.from))));
  const [id] = freshCueIds(cues, 1) as [string];
  const { words: _words, ...rest } = cue;
  const halves = [
    moveCue({ ...rest, text: first }, { from: at.from, to: middle }, timeline),
    moveCue({ ...rest, id, text: second }, { from: middle, to: at.to }, timeline),
  ];
  return cues.flatMap((other) => (other.id === cue.id ? halves : [other]));
}

/**
 * Two cues as one, from where the first begins to where the second ends; null where one is not in the cut, or their
 * words are too long for one.
 */
export function mergeCues(
  cues: readonly Cue[],
  first: ListedCue,
  second: ListedCue,
  timeline: Timeline,
): Cue[] | null {
  if (!first.at || !second.at) return null;
  const stretch = { from: first.at.from, to: Math.max(first.at.to, second.at.to) };
  const { words: _words, ...rest } = first.cue;
  const text = `${first.cue.text}\n${second.cue.text}`;
  if (text.length > MAX_CUE_TEXT) return null;
  const merged = moveCue({ ...rest, text }, stretch, timeline);
  return withCue(
    cues.filter((cue) => cue.id !== second.cue.id),
    first.cue.id,
    () => merged,
  );
}

/**
 * Cues moved by output frames of the clip: all by the same, as far as the first and the last of them can go. Those that
 * the cut leaves out move along their masters.
 * @param ids of those that move.
 */
export function shiftCues(
  cues: readonly Cue[],
  ids: ReadonlySet<string>,
  by: number,
  timeline: Timeline,
): Cue[] {
  const places = new Map(
    cues.flatMap((cue) => (ids.has(cue.id) ? [[cue.id, toStretches(cue.spans, timeline)] as const] : [])),
  );
  let [first, last] = [Infinity, 0];
  for (const { from, to } of [...places.values()].flat()) {
    first = Math.min(first, from);
    last = Math.max(last, to);
  }
  const end = timeline.starts[timeline.cut.length] ?? 0;
  const moved = last === 0 ? by : Math.max(-first, Math.min(end - last, by));
  return cues.map((cue) => {
    const stretches = places.get(cue.id);
    if (!stretches) return cue;
    if (stretches.length === 0)
      return { ...cue, spans: cue.spans.map((span) => shiftInMaster(span, moved, timeline)) };
    const spans = stretches.flatMap(
      ({ from, to }) => toSpans({ from: from + moved, to: to + moved }, timeline) ?? [],
    );
    return spans.length > 0 ? { ...cue, spans } : cue;
  });
}

function shiftInMaster(span: Range, by: number, { masters, rate }: Timeline): Range {
  const master = masters(span.master);
  const frames = Math.sign(by) * scaleFrames(Math.abs(by), rate, master.rate);
  return shiftSpan(span, frames, master.frames);
}

/** All cues of the clip spread anew, so that the first begins and the last ends where it should. */
export function stretchCues(cues: readonly Cue[], to: Stretch, timeline: Timeline): Cue[] {
  const listed = listCues(cues, timeline).filter(({ at }) => at !== null);
  const first = listed[0]?.at;
  const last = listed[listed.length - 1]?.at;
  if (!first || !last || to.to <= to.from) return [...cues];
  const by = (to.to - to.from) / (last.to - first.from);
  const placeFrame = (frame: number) => Math.round(to.from + (frame - first.from) * by);
  const moved = new Map(
    listed.map(({ cue, at }) => [
      cue.id,
      at ? moveCue(cue, { from: placeFrame(at.from), to: placeFrame(at.to) }, timeline) : cue,
    ]),
  );
  return cues.map((cue) => moved.get(cue.id) ?? cue);
}

/** A cue with its ends at the nearest of some frames, where one is near enough. */
export function snapCue(
  { cue, at }: ListedCue,
  points: readonly number[],
  reach: number,
  timeline: Timeline,
): Cue {
  if (!at) return cue;
  const near = (frame: number) => {
    const best = points.reduce<number | null>(
      (found, point) => (found === null || Math.abs(point - frame) < Math.abs(found - frame) ? point : found),
      null,
    );
    return best !== null && Math.abs(best - frame) <= reach ? best : frame;
  };
  const [from, to] = [near(at.from), near(at.to)];
  if (to <= from || (from === at.from && to === at.to)) return cue;
  return moveCue(cue, { from, to }, timeline);
}

/** Begins a cue at an output frame, and ends the one before it there where that would go on. */
export function tapCue(
  cues: readonly Cue[],
  listed: readonly ListedCue[],
  index: number,
  frame: number,
  timeline: Timeline,
): Cue[] {
  const tapped = listed[index];
  if (!tapped?.at) return [...cues];
  const length = tapped.at.to - tapped.at.from;
  const next = listed[index + 1]?.at;
  const to = next && next.from > frame ? Math.min(frame + length, next.from) : frame + length;
  const before = listed[index - 1];
  const begun = withCue(cues, tapped.cue.id, (cue) => moveCue(cue, { from: frame, to }, timeline));
  const old = before?.at;
  if (!before || !old || old.from >= frame || old.to <= frame) return begun;
  return withCue(begun, before.cue.id, (cue) => moveCue(cue, { from: old.from, to: frame }, timeline));
}

/**
 * Words found and replaced in all cues; those that would become too long stay as they are.
 * @returns the cues, how many places were changed, and how many cues stayed.
 */
export function replaceWords(
  cues: readonly Cue[],
  find: string,
  replacement: string,
  matchCase: boolean,
): { cues: Cue[]; places: number; tooLong: number } {
  if (find === '') return { cues: [...cues], places: 0, tooLong: 0 };
  const literal = find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const pattern = new RegExp(literal, matchCase ? 'gu' : 'giu');
  let [places, tooLong] = [0, 0];
  const changed = cues.flatMap((cue): Cue[] => {
    let own = 0;
    const text = cue.text.replace(pattern, () => {
      own += 1;
      return replacement;
    });
    if (own === 0) return [cue];
    if (text.length > MAX_CUE_TEXT) {
      tooLong += 1;
      return [cue];
    }
    places += own;
    return text.trim() === '' ? [] : [rewordCue(cue, text)];
  });
  return { cues: changed, places, tooLong };
}

/**
 * A new cue at an output frame, as long as it says, up to the next one; null where there is no room for it, or the clip
 * has as many cues as it can hold.
 */
export function addCue(
  cues: readonly Cue[],
  stretch: Stretch,
  timeline: Timeline,
): { cues: Cue[]; id: string } | null {
  const listed = listCues(cues, timeline);
  const next = listed.find(({ at }) => at !== null && at.to > stretch.from)?.at;
  if ((next && next.from <= stretch.from) || cues.length >= MAX_CUES) return null;
  const spans: Spans | null = toSpans(
    { from: stretch.from, to: Math.min(stretch.to, next?.from ?? Infinity) },
    timeline,
  );
  const [id] = freshCueIds(cues, 1) as [string];
  return spans ? { cues: [...cues, { id, text: '', spans }], id } : null;
}
