import type { CaptionNote, NoteCode } from './caption-note';
import { readTime } from './times';

/** A cue as it stands in a file. */
export interface RawCue {
  /** Seconds; null where its time cannot be read. */
  start: number | null;
  end: number | null;
  /** Its lines, with whatever marks they have. */
  text: string;
  /** Of its time, from 1 on. */
  line: number;
  notes: CaptionNote[];
}

/** Cues of a file, and what is to be said of what lies between them. */
export interface RawFile {
  format: 'vtt' | 'srt';
  cues: RawCue[];
  notes: CaptionNote[];
}

/** Separator of two times: an arrow, however many strokes it has. */
const ARROW = /\s*(?:-{1,4}\s?[>›→]|→|={1,3}>)\s*/u;
const TIMES = new RegExp(String.raw`^\s*[-−]?\s*[\d:;.,\s]{3,}?${ARROW.source}\s*[-−]?\s*\d`, 'u');
/** Marks that only WebVTT has at the beginning of a block. */
const COMMENT = /^(NOTE|STYLE|REGION)(\s|$)/;

/** Line that is meant as two times, though a letter has come into them. */
const BROKEN = /^\s*[-−]?\d[^\s>]{0,30}:[^\s>]{1,30}\s*-->\s*\S/u;

const isTimes = (line: string): boolean => line.length < 400 && (TIMES.test(line) || BROKEN.test(line));
const isBlank = (line: string): boolean => line.trim() === '';
const isNumber = (line: string): boolean => /^\s*\d+\s*$/.test(line);

/** Finds the cues of a file of captions, whatever is wrong around them: whatever has a time is one. */
export function findCues(text: string): RawFile {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  const format = /^WEBVTT(\s|$)/.test(lines[0] ?? '') ? 'vtt' : 'srt';
  const cues: RawCue[] = [];
  const notes: CaptionNote[] = [];
  const say = (code: NoteCode, line: number, detail = ''): void =>
    void notes.push({ code, line: line + 1, detail });
  let at = format === 'vtt' ? 1 : 0;
  // What follows the header up to an empty line belongs to it.
  if (format === 'vtt')
    while (at < lines.length && !isBlank(lines[at] as string) && !isTimes(lines[at] as string)) at++;
  while (at < lines.length) {
    const line = lines[at] as string;
    if (isTimes(line)) {
      const end = findEnd(lines, at + 1);
      cues.push(readCue(lines, at, end, { format, count: cues.length }));
      at = end;
    } else if (format === 'vtt' && COMMENT.test(line)) {
      const from = at;
      while (at < lines.length && !isBlank(lines[at] as string) && !isTimes(lines[at] as string)) at++;
      say('comment', from, short(lines.slice(from, at).join(' ')));
    } else {
      if (!isBlank(line) && !isTimes(lines[at + 1] ?? '')) say('outside', at, short(line));
      at++;
    }
  }
  return { format, cues, notes };
}

const short = (text: string): string => (text.length > 60 ? `${text.slice(0, 57)}…` : text.trim());

/** Where a cue's words end: before the next time and its number, or before a note. */
function findEnd(lines: readonly string[], from: number): number {
  let at = from;
  for (; at < lines.length; at++) {
    const line = lines[at] as string;
    if (isTimes(line)) break;
    if (isBlank(lines[at - 1] ?? '') && COMMENT.test(line)) break;
  }
  if (at >= lines.length || !isTimes(lines[at] as string)) return at;
  // The line before a time is its name, where it stands alone or is a number.
  const before = lines[at - 1] as string;
  const alone = at - 2 >= from - 1 && isBlank(lines[at - 2] as string) && !isBlank(before);
  return at > from && (isNumber(before) || alone) ? at - 1 : at;
}

function readCue(
  lines: readonly string[],
  at: number,
  end: number,
  { format, count }: { format: 'vtt' | 'srt'; count: number },
): RawCue {
  const notes: CaptionNote[] = [];
  const say = (code: NoteCode, detail = ''): void => void notes.push({ code, line: at + 1, detail });
  const line = lines[at] as string;
  const arrow = ARROW.exec(line);
  const [first, rest] = arrow
    ? [line.slice(0, arrow.index), line.slice(arrow.index + arrow[0].length)]
    : [line, ''];
  const [, last = '', settings = ''] =
    /^([-−]?\s*[\d:;.,]+(?:\s*[.,]\s*\d+)?)\s*(.*)$/u.exec(rest.trim()) ?? [];
  const [start, stop] = [readTime(first, format), readTime(last, format)];
  if (!start || !stop) say('time-unclear', short(line));
  else if (!start.plain || !stop.plain || !/^\s*-->\s*$/.test(arrow?.[0] ?? '')) {
    say('comma', `${start.seconds} to ${stop.seconds} s`);
  }
  if (settings.trim() !== '') say('tags', short(settings));
  const before = lines[at - 1] ?? '';
  if (format === 'srt' && Number(before.trim()) !== count + 1) say('number');
  const named = isBlank(before) ? before : (lines[at - 2] ?? '');
  if (count > 0 && !isBlank(before) && !isBlank(named)) say('blank-missing');
  const words = lines.slice(at + 1, end);
  while (words.length > 0 && isBlank(words[words.length - 1] as string)) words.pop();
  while (words.length > 0 && isBlank(words[0] as string)) words.shift();
  if (words.some(isBlank)) say('blank-inside');
  return {
    start: start?.seconds ?? null,
    end: stop?.seconds ?? null,
    text: words.filter((word) => !isBlank(word)).join('\n'),
    line: at + 1,
    notes,
  };
}
