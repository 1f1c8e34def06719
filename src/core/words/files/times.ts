/** Hours, minutes, seconds and thousandths as files write them, with whatever marks stand between. */
const TIME = /^([-−])?\s*(?:(\d+)\s*[:;]\s*)?(\d{1,3})\s*[:;]\s*(\d{1,2})(?:\s*[.,:;]\s*(\d{1,6}))?$/u;
/** Patterns of times in WebVTT and SRT. */
const PLAIN = { vtt: /^(\d{2,}:)?[0-5]\d:[0-5]\d\.\d{3}$/, srt: /^\d{2}:[0-5]\d:[0-5]\d,\d{3}$/ };

/** A time as a file writes it. */
export interface ParsedTime {
  /** Seconds, below 0 where it was written so. */
  seconds: number;
  /** True when it is written as its format says. */
  plain: boolean;
}

/** Reads a time, however it is written; null for what is none. */
export function readTime(text: string, format: 'vtt' | 'srt'): ParsedTime | null {
  const trimmed = text.trim();
  const found = TIME.exec(trimmed);
  if (!found) return null;
  const [, sign, hours = '0', minutes = '0', seconds = '0', part = '0'] = found;
  const whole = Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds);
  const value = (whole * 1e6 + Number(part.padEnd(6, '0'))) / 1e6;
  return { seconds: sign ? -value : value, plain: PLAIN[format].test(trimmed) };
}

/** A time as a format writes it. @param seconds 0 or more. */
export function timeText(seconds: number, mark: '.' | ','): string {
  const thousandths = Math.round(Math.max(0, seconds) * 1000);
  const pad = (value: number, digits: number) => String(value).padStart(digits, '0');
  const [hours, minutes] = [Math.floor(thousandths / 3_600_000), Math.floor(thousandths / 60_000) % 60];
  const rest = `${pad(Math.floor(thousandths / 1000) % 60, 2)}${mark}${pad(thousandths % 1000, 3)}`;
  return `${pad(hours, 2)}:${pad(minutes, 2)}:${rest}`;
}
