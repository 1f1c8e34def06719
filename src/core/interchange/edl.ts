import { type Cut, toMasterLengths, type Range, rangeStarts } from '../cut/cut';
import { type FrameRate, STANDARD_RATES } from '../time/frame-rate';
import { canDrop, formatTimecode } from '../time/timecode';
import {
  type ListEvent,
  type ListMaster,
  type ListNote,
  listTimecode,
  type ReadList,
  reelNames,
} from './cut-list';

/**
 * Edit decision lists in the CMX 3600 form, as tools of many makers write them. Source: the form as it is described
 * in SMPTE ST 258 (its successor) and in common practice; a list does not say its rate, so it is given.
 */

const TIME = String.raw`(\d{1,2}:\d{2}:\d{2}[:;.]\d{2,3})`;
const EVENT = new RegExp(
  // A reel may have spaces in it; what follows it may not.
  String.raw`^(\d{1,6})\s+(\S.*?)\s+(\S+)\s+([A-Z]+\d*(?:\s+[BO])?)(?:\s+(\d{1,4}))?\s+${TIME}\s+${TIME}\s+${TIME}\s+${TIME}\s*$`,
  'i',
);
const SPEED = /^M2\s+(\S+)\s+(-?\d+(?:\.\d+)?)\s+(\S+)/i;
const CLIP_NAME = /^\*?\s*(FROM|TO) CLIP NAME:\s*(.+?)\s*$/i;
/** Reels that stand for black. */
const BLACK = /^(BL|BLACK)$/i;
/** Rate of a drop-frame list where the master's rate has no drop-frame counting. */
const DROP_RATE: FrameRate = { num: 30000, den: 1001 };
/** A timecode at any rate. */
const SHAPE = /^\d{1,2}:[0-5]\d:[0-5]\d[:;.]\d{2,3}$/;
/** Transitions by their letters. */
const KINDS: Record<string, string> = { D: 'dissolve', W: 'wipe', K: 'key' };

interface Reading {
  events: ListEvent[];
  notes: ListNote[];
  title: string;
  drop: boolean | null;
  /** The event that the last event line gave; null where it could not be used. */
  last: ListEvent | null;
  /** True when the source that the last event dissolves from is in the list too. */
  isOver: boolean;
  recordStart: number;
}

/** Reads a list. Never throws: what cannot be used is told with its line and the reason. @param rate of its timecode. */
export function readEdl(text: string, rate: FrameRate): ReadList {
  const reading: Reading = {
    ...{ events: [], notes: [], title: '', drop: null },
    ...{ last: null, isOver: false, recordStart: Infinity },
  };
  text.split(/\r\n|\r|\n/).forEach((raw, i) => {
    const line = raw.replace(/^\uFEFF/, '').trim();
    if (line !== '') readLine(line, i + 1, rate, reading);
  });
  if (reading.events.length === 0) {
    reading.notes.push({
      line: 1,
      reason: 'no event could be read: this is not an edit decision list, or it is empty',
    });
  }
  const { title, events, notes, recordStart } = reading;
  return { title, events, notes, recordStart: Number.isFinite(recordStart) ? recordStart : 0 };
}

function readLine(text: string, line: number, rate: FrameRate, reading: Reading): void {
  const { notes, events } = reading;
  const title = /^TITLE:\s*(.*)$/i.exec(text);
  if (title) {
    reading.title = title[1]?.trim() ?? '';
    return;
  }
  if (/^FCM:/i.test(text)) {
    reading.drop = !/NON/i.test(text);
    if (reading.drop && !canDrop(rate))
      notes.push({ line, reason: 'says drop-frame, which this rate does not have' });
    return;
  }
  const name = CLIP_NAME.exec(text);
  if (name?.[2]) {
    // Of a dissolve FROM names what it comes from, where that stands in the list, and TO what it comes to.
    const isOwn = /to/i.test(name[1] ?? '') || !reading.isOver;
    if (reading.last && isOwn) reading.last.source = name[2];
    return;
  }
  const speed = SPEED.exec(text);
  if (speed) {
    notes.push({
      line,
      reason: `a speed of ${speed[2]} frames a second cannot be used: the frames play at their own`,
    });
    return;
  }
  if (/^(\*|>>>|M\d|SPLIT|AUD|BL\b|#)/i.test(text)) return;
  if (!/^\d/.test(text)) {
    notes.push({ line, reason: 'is neither an event nor a known note' });
    return;
  }
  const event = readEvent(text, line, rate, reading);
  const before = reading.last;
  reading.last = null;
  if ('reason' in event) return void notes.push(event);
  reading.last = event;
  // The piece that a dissolve comes in over: of no length, at the same place.
  reading.isOver = event.transition !== null && before !== null && before.recordOut === event.recordIn;
  // A piece of a fast master may be shorter than a frame of the record; one of no length at all is not there.
  const isThere =
    event.recordOut > event.recordIn || (event.used.kind === 'timecode' && event.used.in !== event.used.out);
  if (isThere) events.push(event);
}

function readEvent(text: string, line: number, rate: FrameRate, reading: Reading): ListEvent | ListNote {
  const match = EVENT.exec(text);
  if (!match)
    return {
      line,
      reason: 'is not an event: a number, a reel, a track, an edit and four timecodes are needed',
    };
  const [, , reel = '', track = '', edit = '', length] = match;
  if (!/V|NONE/i.test(track) && !/^B$/i.test(track))
    return { line, reason: `is of track ${track}: only pictures are used` };
  const drop = reading.drop === true;
  const [sourceIn = '', sourceOut = '', ...record] = match.slice(6, 10);
  // The record may count at another rate than the master: at the first that has such numbers.
  const ways = [drop && !canDrop(rate) ? DROP_RATE : rate, ...STANDARD_RATES].map((own) =>
    record.map((time) => listTimecode(time, own, drop)),
  );
  const times = ways.find((way) => way.every((frame) => frame !== null)) ?? ways[0] ?? [];
  const bad = times.findIndex((time) => time === null);
  if (bad >= 0) return { line, reason: `${record[bad]} is not a timecode at this rate` };
  const odd = [sourceIn, sourceOut].find((time) => !SHAPE.test(time));
  if (odd !== undefined) return { line, reason: `${odd} is not a timecode at this rate` };
  const [recordIn, recordOut] = times as [number, number];
  if (recordOut < recordIn || countDigits(sourceOut) < countDigits(sourceIn))
    return { line, reason: 'ends before it begins' };
  reading.recordStart = Math.min(reading.recordStart, recordIn);
  const letter = edit.charAt(0).toUpperCase();
  if (letter !== 'C' && !KINDS[letter]) return { line, reason: `${edit} is not a known edit` };
  if (BLACK.test(reel)) return { line, reason: 'is black, not a piece of a master' };
  return {
    line,
    source: reel,
    reel,
    used: { kind: 'timecode', in: sourceIn, out: sourceOut, drop },
    recordIn,
    recordOut,
    transition:
      letter === 'C' ? null : { kind: KINDS[letter] ?? edit, frames: Number(length ?? 0), from: recordIn },
  };
}

/** A timecode's figures as one number: later ones are larger. */
const countDigits = (timecode: string): number =>
  Number(timecode.replace(/\d+$/, (frames) => frames.padStart(3, '0')).replace(/\D/g, ''));

/**
 * Writes a cut as a list. Drop-frame timecode where the rate has it, so that the clock is right.
 * @param rate of the record: the canvas's. @throws RangeError for a range of an unknown master.
 */
export function writeEdl(title: string, cut: Cut, masters: readonly ListMaster[], rate: FrameRate): string {
  const drop = canDrop(rate);
  const names = reelNames(masters);
  const lines = [
    `TITLE: ${title.replace(/[\r\n]+/g, ' ')}`,
    `FCM: ${drop ? 'DROP FRAME' : 'NON-DROP FRAME'}`,
    '',
  ];
  const starts = rangeStarts(cut, toMasterLengths(masters), rate);
  cut.forEach((range: Range, i) => {
    const master = masters.find((master) => master.id === range.master);
    if (!master) throw new RangeError(`no master ${range.master}`);
    const times = [
      formatTimecode(range.in, master.rate, canDrop(master.rate)),
      formatTimecode(range.out, master.rate, canDrop(master.rate)),
      formatTimecode(starts[i] as number, rate, drop),
      formatTimecode(starts[i + 1] as number, rate, drop),
    ];
    const reel = (names.get(range.master) ?? '').padEnd(8);
    lines.push(`${String(i + 1).padStart(3, '0')}  ${reel} V     C        ${times.join(' ')}`);
    lines.push(`* FROM CLIP NAME: ${master.fileName}`);
  });
  return lines.join('\n') + '\n';
}
