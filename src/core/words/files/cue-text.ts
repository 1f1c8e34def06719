import { tokenizeVTTCue, VTTCue, type VTTNode } from 'media-captions';
import { locateWords } from '../speech-rhythm';

/** The words of a cue without its marks. */
export interface CueText {
  text: string;
  /** When each word begins, in seconds of the file, where the file says so. */
  words: number[] | null;
  /** Marks that were left out, each once. */
  left: string[];
}

/** Marks that WebVTT knows, and those that SRT files have. */
const KNOWN = /<(?:\/?(?:c|i|b|u|ruby|rt|v|lang)(?:[.\s][^<>]*)?|(?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3})>/giu;
const OTHERS = /<\/?(?:font|s|em|strong|span|br)(?:\s[^<>]*)?\/?>|\{\\[^{}]*\}/giu;

/** Reads the marks of a cue's text. What is no mark that is known is text, whatever it looks like. */
export function readCueText(raw: string, start: number, end: number): CueText {
  const left = new Set<string>();
  const plain = raw.replace(/<br\s*\/?>/giu, '\n').replace(OTHERS, (mark) => {
    left.add(mark.replace(/\s.*$/u, '>').replace('>>', '>'));
    return '';
  });
  const cue = new VTTCue(start, end, escapeText(plain, left));
  const read: { text: string; at: number | null }[] = [];
  collect(tokenizeVTTCue(cue), null, read);
  const text = tidy(read.map((piece) => piece.text).join(''));
  return { text, words: wordTimes(read, text), left: [...left] };
}

/** The text with what is no mark escaped, and times of words as WebVTT writes them. */
function escapeText(text: string, left: Set<string>): string {
  let out = '';
  let from = 0;
  for (const found of text.matchAll(KNOWN)) {
    const mark = found[0];
    out += escapedPart(text.slice(from, found.index));
    if (/^<\d/.test(mark)) {
      const [time = '', part = '0'] = mark.slice(1, -1).split(/[.,]/);
      out += `<${time.split(':').length === 2 ? `00:${time}` : time}.${part.padEnd(3, '0')}>`;
    } else {
      left.add(mark.replace(/[\s.].*$/u, '>').replace('>>', '>'));
      out += mark;
    }
    from = found.index + mark.length;
  }
  return out + escapedPart(text.slice(from));
}

/** An ampersand that begins no name of a character is one itself. */
const escapedPart = (text: string): string =>
  text
    .replace(/&(?!(?:amp|lt|gt|lrm|rlm|nbsp|quot|apos|#\d+|#x[0-9a-f]+);)/giu, '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;');

function collect(
  nodes: readonly VTTNode[],
  at: number | null,
  into: { text: string; at: number | null }[],
): void {
  for (const node of nodes) {
    if (node.type === 'text') into.push({ text: node.data, at });
    else collect(node.children, node.type === 'timestamp' ? node.time : at, into);
  }
}

const tidy = (text: string): string =>
  text
    .split('\n')
    .map((line) => line.replace(/[ \t]+/g, ' ').trim())
    .filter((line) => line !== '')
    .join('\n');

/** When each word begins, where more than one time is said; words without a time of their own have that before them. */
function wordTimes(read: readonly { text: string; at: number | null }[], text: string): number[] | null {
  if (!read.some((piece) => piece.at !== null)) return null;
  const times = read.flatMap((piece) => locateWords(piece.text).map(() => piece.at ?? -1));
  return times.length === locateWords(text).length ? times : null;
}
