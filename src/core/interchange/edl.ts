import type { Cut, Range } from '../cut/cut';
import { type FrameRate, scaledFrames } from '../time/frame-rate';
import { canDrop, formatTimecode, parseTimecode } from '../time/timecode';
import type { ListEvent, ListMaster, ListNote, ReadList } from './cut-list';

/**
 * Edit decision lists in the CMX 3600 form, as tools of many makers write them. Source: the form as it is described
 * in SMPTE ST 258 (its successor) and in common practice; a list does not say its rate, so it is given.
 */

const TIME = String.raw`(\d{1,2}:\d{2}:\d{2}[:;.]\d{2,3})`;
const EVENT = new RegExp(
  String.raw`^(\d{1,6})\s+(\S+)\s+(\S+)\s+([A-Z]+\d*(?:\s+[BO])?)(?:\s+(\d{1,4}))?\s+${TIME}\s+${TIME}\s+${TIME}\s+${TIME}\s*$`,
  'i',
);
const SPEED = /^M2\s+(\S+)\s+(-?\d+(?:\.\d+)?)\s+(\S+)/i;
const CLIP_NAME = /^\*\s*FROM CLIP NAME:\s*(.+?)\s*$/i;
/** Transitions by their letters. */
const KINDS: Record<string, string> = { D: 'dissolve', W: 'wipe', K: 'key' };

interface Reading {
  events: ListEvent[];
  notes: ListNote[];
  title: string;
  drop: boolean | null;
}

/** Reads a list. Never throws: what cannot be used is told with its line and the reason. @param rate of its timecode. */
export function readEdl(text: string, rate: FrameRate): ReadList {
  const reading: Reading = { events: [], notes: [], title: '', drop: null };
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
  return { title: reading.title, events: reading.events, notes: reading.notes };
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
  const last = events[events.length - 1];
  if (name?.[1]) {
    if (last) last.source = name[1];
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
  if (/^(\*|>>>|M\d|SPLIT|AUD|BL\b|TO CLIP|#)/i.test(text)) return;
  if (!/^\d/.test(text)) {
    notes.push({ line, reason: 'is neither an event nor a known note' });
    return;
  }
  const event = readEvent(text, line, rate, reading.drop === true);
  if ('reason' in event) notes.push(event);
  else if (event.recordOut > event.recordIn) {
    if (last && last.recordIn === event.recordIn && event.transition && last.recordOut === last.recordIn)
      events.pop();
    events.push(event);
  }
}

function readEvent(text: string, line: number, rate: FrameRate, drop: boolean): ListEvent | ListNote {
  const match = EVENT.exec(text);
  if (!match)
    return {
      line,
      reason: 'is not an event: a number, a reel, a track, an edit and four timecodes are needed',
    };
  const [, , reel = '', track = '', edit = '', length] = match;
  if (!/V|NONE/i.test(track) && !/^B$/i.test(track))
    return { line, reason: `is of track ${track}: only pictures are used` };
  const times = match.slice(6, 10).map((time) => timecodeFrame(time, rate, drop));
  const bad = times.findIndex((time) => time === null);
  if (bad >= 0) return { line, reason: `${match[6 + bad]} is not a timecode at this rate` };
  const [sourceIn, sourceOut, recordIn, recordOut] = times as [number, number, number, number];
  if (recordOut < recordIn || sourceOut < sourceIn) return { line, reason: 'ends before it begins' };
  const letter = edit.charAt(0).toUpperCase();
  if (letter !== 'C' && !KINDS[letter]) return { line, reason: `${edit} is not a known edit` };
  if (/^BL$/i.test(reel)) return { line, reason: 'is black, not a piece of a master' };
  const span = sourceOut - sourceIn;
  const frames = span > 0 ? span : recordOut - recordIn;
  return {
    line,
    source: reel,
    sourceIn,
    sourceOut: sourceIn + frames,
    recordIn,
    recordOut,
    transition: letter === 'C' ? null : { kind: KINDS[letter] ?? edit, frames: Number(length ?? 0) },
  };
}

/** A timecode's frame; a list that says drop-frame may still write colons. */
function timecodeFrame(text: string, rate: FrameRate, drop: boolean): number | null {
  const semicolon =
    drop && canDrop(rate) ? text.replace(/[:.;](\d+)$/, ';$1') : text.replace(/\.(\d+)$/, ':$1');
  return parseTimecode(semicolon, rate);
}

/** A reel of eight letters and digits for each master, no two alike. */
function reelNames(masters: readonly ListMaster[]): Map<string, string> {
  const names = new Map<string, string>();
  for (const { id, fileName } of masters) {
    const base =
      fileName
        .replace(/\.[^.]+$/, '')
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, '')
        .slice(0, 8) || 'MASTER';
    let reel = base;
    for (let n = 2; [...names.values()].includes(reel); n++) reel = base.slice(0, 8 - String(n).length) + n;
    names.set(id, reel);
  }
  return names;
}

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
  let record = 0;
  cut.forEach((range: Range, i) => {
    const master = masters.find((master) => master.id === range.master);
    if (!master) throw new RangeError(`no master ${range.master}`);
    const length = scaledFrames(range.out - range.in, master.rate, rate);
    const times = [
      formatTimecode(range.in, master.rate, canDrop(master.rate)),
      formatTimecode(range.out, master.rate, canDrop(master.rate)),
      formatTimecode(record, rate, drop),
      formatTimecode(record + length, rate, drop),
    ];
    const reel = (names.get(range.master) ?? '').padEnd(8);
    lines.push(`${String(i + 1).padStart(3, '0')}  ${reel} V     C        ${times.join(' ')}`);
    lines.push(`* FROM CLIP NAME: ${master.fileName}`);
    record += length;
  });
  return lines.join('\n') + '\n';
}
