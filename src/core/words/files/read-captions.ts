import { splitGraphemes } from '../graphemes';
import { MAX_CUE_TEXT, MAX_CUES } from '../captions';
import { readCueText } from './cue-text';
import type { CaptionFile, FileCue } from './caption-file';
import type { CaptionNote, NoteCode } from './caption-note';
import { decodeText } from './decode-text';
import { findCues, type RawCue } from './find-cues';

/** A cue that had no length lasts so long, in seconds. */
const DEFAULT_CUE_SECONDS = 1;

/** Reads SRT or WebVTT, whatever is wrong with it: what can be mended is, what is left out is told. Never throws. */
export function readCaptions(bytes: Uint8Array): CaptionFile {
  const { text, encoding, mark } = decodeText(bytes);
  const notes: CaptionNote[] = [];
  const say = (code: NoteCode, detail = ''): void => void notes.push({ code, line: 1, detail });
  if (encoding !== 'UTF-8') say('encoding', encoding);
  else if (mark) say('mark');
  if (text.includes('\uFFFD')) say('replaced');
  const { format, cues: raw, notes: outside } = findCues(text);
  notes.push(...outside);
  const timed = withTimes(raw);
  const worded = timed.flatMap((cue) => {
    const read = withWords(cue);
    if (read.length === 0) notes.push(...cue.notes, { code: 'empty', line: cue.line, detail: '' });
    return read;
  });
  const ordered = inOrder(worded);
  if (ordered.length > MAX_CUES) say('many', String(MAX_CUES));
  return { format, cues: ordered.slice(0, MAX_CUES), notes };
}

type TimedCue = RawCue & { start: number; end: number };

const addNote = (cue: { line: number; notes: CaptionNote[] }, code: NoteCode, detail = ''): void =>
  void cue.notes.push({ code, line: cue.line, detail });

/** Cues with a start and an end after it. */
function withTimes(cues: readonly RawCue[]): TimedCue[] {
  let before = 0;
  return cues.map((raw) => {
    const cue = { ...raw, notes: [...raw.notes] };
    let [start, end] = [cue.start ?? before, cue.end ?? (cue.start ?? before) + DEFAULT_CUE_SECONDS];
    if (start < 0 || end < 0) {
      addNote(cue, 'negative');
      [start, end] = [Math.max(0, start), Math.max(0, end)];
    }
    if (end < start) {
      addNote(cue, 'backward');
      [start, end] = [end, start];
    }
    if (end === start) {
      addNote(cue, 'instant', String(DEFAULT_CUE_SECONDS));
      end = start + DEFAULT_CUE_SECONDS;
    }
    before = end;
    return { ...cue, start, end };
  });
}

/** A cue with its marks read; several where it is too long, none where it has no words. */
function withWords(cue: TimedCue): FileCue[] {
  const { start, end, line, notes } = cue;
  const { text, words, left } = readCueText(cue.text, start, end);
  if (left.length > 0) addNote(cue, 'tags', left.join(' '));
  if (text === '') return [];
  const parts = splitLines(text);
  if (parts.length > 1) addNote(cue, 'long');
  const edge = (i: number) => (i === parts.length ? end : start + (i * (end - start)) / parts.length);
  return parts.map((part, i) => ({
    start: edge(i),
    end: edge(i + 1),
    text: part,
    ...(words && parts.length === 1 && { words: words.map((time) => toShare(time, start, end)) }),
    line,
    notes: i === 0 ? notes : [],
  }));
}

const toShare = (time: number, start: number, end: number): number =>
  Math.min(1, Math.max(0, (time - start) / (end - start)));

/** A text in parts that cues can hold, between graphemes. */
function splitLines(text: string): string[] {
  if (text.length <= MAX_CUE_TEXT) return [text];
  // A letter may carry more marks than a cue can hold.
  const pieces = splitGraphemes(text).flatMap((grapheme) => grapheme.match(/[\s\S]{1,500}/g) ?? []);
  return pieces.reduce<string[]>(
    (parts, piece) => {
      const last = parts[parts.length - 1] as string;
      if (last.length + piece.length > MAX_CUE_TEXT) parts.push(piece);
      else parts[parts.length - 1] = last + piece;
      return parts;
    },
    [''],
  );
}

/** Cues in the order of their starts, none over the next. */
function inOrder(cues: readonly FileCue[]): FileCue[] {
  let latest = -1;
  for (const cue of cues) {
    if (cue.start < latest) addNote(cue, 'order');
    latest = Math.max(latest, cue.start);
  }
  const sorted = [...cues].sort((a, b) => a.start - b.start);
  const out: FileCue[] = [];
  for (const cue of sorted) {
    const last = out[out.length - 1];
    if (last && cue.start < last.end) {
      if (cue.start - last.start < 0.001 && last.text.length + cue.text.length < MAX_CUE_TEXT) {
        addNote(last, 'together');
        last.notes.push(...cue.notes);
        last.text = `${last.text}\n${cue.text}`;
        last.end = Math.max(last.end, cue.end);
        delete last.words;
        continue;
      }
      addNote(last, 'overlap');
      if (cue.start > last.start) last.end = cue.start;
      else {
        // Too much for one cue: they share the time.
        const middle = (last.start + Math.max(last.end, cue.end)) / 2;
        [last.end, cue.start, cue.end] = [middle, middle, Math.max(cue.end, middle + 0.001)];
      }
    }
    out.push({ ...cue, notes: cue.notes });
  }
  return out;
}
