import { type FrameRate, countFramesWithin, rateValue } from './frame-rate';
import { parseTimecode } from './timecode';

/** Context that typed text can refer to. */
export interface EntryContext {
  rate: FrameRate;
  /** The frame that `+` and `−` count from. */
  from: number;
}

/** A length in one of the short forms, in seconds: `1.5s`, `1:02`, `1:02.5`, `1:02:03`. */
function secondsOfText(text: string): number | null {
  const plain = /^(\d+(?:[.,]\d+)?)\s*s$/.exec(text);
  if (plain?.[1]) return Number(plain[1].replace(',', '.'));
  const clock = /^(?:(\d{1,2}):)?(\d{1,3}):([0-5]?\d(?:[.,]\d+)?)$/.exec(text);
  if (!clock?.[2] || !clock[3]) return null;
  const minutes = Number(clock[1] ?? 0) * 60 + Number(clock[2]);
  return minutes * 60 + Number(clock[3].replace(',', '.'));
}

/**
 * The frame that typed text means: `1:02` (minutes and seconds), `1.5s`, `00:01:02;04` (timecode; the semicolon is
 * drop-frame), `310` (a frame number), and each with `+` or `−` in front as a distance.
 *
 * @returns a whole number, which may lie outside the master, or null when the text means nothing.
 */
export function parseEntry(text: string, { rate, from }: EntryContext): number | null {
  const match = /^\s*([+\-−])?\s*(.+?)\s*$/.exec(text);
  if (!match?.[2]) return null;
  const frames = framesOfText(match[2], rate);
  if (frames === null) return null;
  if (!match[1]) return frames;
  return match[1] === '+' ? from + frames : from - frames;
}

function framesOfText(text: string, rate: FrameRate): number | null {
  if (/^\d+$/.test(text)) return Number(text);
  const timecode = parseTimecode(text, rate);
  if (timecode !== null) return timecode;
  const seconds = secondsOfText(text);
  if (seconds === null) return null;
  // A second that was typed as a decimal lies in a frame; the nearest whole one below is meant.
  return countFramesWithin(seconds + 1e-6 / rateValue(rate), rate);
}
