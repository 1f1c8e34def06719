import { type FrameRate, rateValue } from './frame-rate';

/** Frames that a timecode counts in a second: 24 for 23.976, 30 for 29.97; one where frames last longer. */
function nominal(rate: FrameRate): number {
  return Math.max(1, Math.round(rateValue(rate)));
}

/**
 * Tells whether drop-frame counting exists for a rate: 29.97 and its multiples (SMPTE ST 12-1 clause 5.2.2,
 * ST 12-3).
 */
export function canDrop(rate: FrameRate): boolean {
  return rate.den === 1001 && nominal(rate) % 30 === 0;
}

/**
 * Timecode of a frame, `00:00:11:06`; drop-frame shows a semicolon before the frames.
 * Drop-frame counting leaves out the first two frame numbers (four at 59.94) of every minute but each tenth.
 * Source: SMPTE ST 12-1:2014 clause 5.2.2.
 *
 * @param frame whole frame number, 0 or more.
 * @throws RangeError for a fraction, a negative number, or drop-frame at a rate that has none.
 */
export function formatTimecode(frame: number, rate: FrameRate, drop = false): string {
  if (!Number.isInteger(frame) || frame < 0) throw new RangeError(`not a frame number: ${frame}`);
  if (drop && !canDrop(rate))
    throw new RangeError('drop-frame timecode exists for 29.97 and its multiples only');
  const fps = nominal(rate);
  const counted = drop ? frame + droppedBefore(frame, fps) : frame;
  const pad = (value: number) => String(value).padStart(2, '0');
  const seconds = Math.floor(counted / fps);
  const clock = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60].map(pad).join(':');
  return `${clock}${drop ? ';' : ':'}${pad(counted % fps)}`;
}

/** Frame numbers left out before a frame. */
function droppedBefore(frame: number, fps: number): number {
  const perMinute = fps / 15;
  const tenMinutes = fps * 600 - 9 * perMinute;
  const minute = fps * 60 - perMinute;
  const tens = Math.floor(frame / tenMinutes);
  const rest = frame % tenMinutes;
  const minutes = rest < fps * 60 ? 0 : 1 + Math.floor((rest - fps * 60) / minute);
  return perMinute * (9 * tens + minutes);
}

/**
 * The frame of a timecode; the inverse of {@link formatTimecode}. A semicolon before the frames means drop-frame.
 *
 * @param text `hh:mm:ss:ff` or `hh:mm:ss;ff`.
 * @returns the frame number, or null when the text is not a timecode at this rate (also for a dropped number).
 */
export function parseTimecode(text: string, rate: FrameRate): number | null {
  const match = /^(\d{1,2}):([0-5]\d):([0-5]\d)([:;])(\d{2,3})$/.exec(text.trim());
  if (!match) return null;
  const [hours, minutes, seconds, frames] = [match[1], match[2], match[3], match[5]].map(Number) as [
    number,
    number,
    number,
    number,
  ];
  const fps = nominal(rate);
  if (frames >= fps) return null;
  const counted = ((hours * 60 + minutes) * 60 + seconds) * fps + frames;
  if (match[4] === ':') return counted;
  if (!canDrop(rate)) return null;
  const perMinute = fps / 15;
  if (seconds === 0 && frames < perMinute && minutes % 10 !== 0) return null;
  const allMinutes = hours * 60 + minutes;
  return counted - perMinute * (allMinutes - Math.floor(allMinutes / 10));
}

/** A length for people: `0:41.0`, `1:04.5`; tenths of a second, rounded. @param seconds 0 or more. */
export function lengthLabel(seconds: number): string {
  const tenths = Math.round(seconds * 10);
  const minutes = Math.floor(tenths / 600);
  return `${minutes}:${((tenths % 600) / 10).toFixed(1).padStart(4, '0')}`;
}
