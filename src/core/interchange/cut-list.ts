import type { Cut } from '../cut/cut';
import type { Boundary } from '../cut/shots';
import { type FrameRate, rateValue } from '../time/frame-rate';
import { canDrop, parseTimecode } from '../time/timecode';

/**
 * Where a source is used, as the list says it: its frames are known once its rate is. `timecode` counts at the source's
 * own rate, `time` at the rate that stands beside it.
 */
type SourceRange =
  | { kind: 'timecode'; in: string; out: string; drop: boolean }
  | { kind: 'time'; in: number; out: number; rate: number };

/** Event of a list: which part of which source stands where in the record. */
export interface ListEvent {
  /** Line of the file, from 1. */
  line: number;
  /** Name of the clip; where none is given, the reel. */
  source: string;
  /** Name of the reel, where there is one. */
  reel: string | null;
  used: SourceRange;
  /** Frames of the record at the list's rate, half-open. */
  recordIn: number;
  recordOut: number;
  /** How it comes in, and the record frame at which that begins: nothing for a cut. */
  transition: { kind: string; frames: number; from: number } | null;
}

/** Something in a list that cannot be used, or not as it stands. */
export interface ListNote {
  /** Line of the file, from 1. */
  line: number;
  reason: string;
}

/** Result of reading a list. A list that could not be read at all has no events and says why. */
export interface ReadList {
  title: string;
  events: ListEvent[];
  notes: ListNote[];
  /** The record frame at which the list begins, also where nothing that can be used stands there. */
  recordStart: number;
}

/** A master that events may mean. */
export interface ListMaster {
  id: string;
  fileName: string;
  rate: FrameRate;
  frames: number;
}

/** Takes off the whole hours that a timecode starts with: it is common to start at hour one (no source). */
function fromStart(frame: number, frames: number, rate: FrameRate): number {
  if (frame < frames) return frame;
  const hour = Math.round(3600 * rateValue(rate));
  // Non-drop counting at 29.97 gives an hour as many frames as 30 fps has.
  const counted = 3600 * Math.round(rateValue(rate));
  return [hour, counted].map((length) => frame % length).find((rest) => rest < frames) ?? frame;
}

/** A list's record as shot boundaries of the one master that was exported from it. */
export function toShots(list: ReadList, master: ListMaster): { boundaries: Boundary[]; notes: ListNote[] } {
  const notes: ListNote[] = [];
  const boundaries: Boundary[] = [];
  let end = list.recordStart;
  for (const { line, recordIn, recordOut, transition } of list.events) {
    if (recordOut <= recordIn) continue;
    const frame = recordIn - list.recordStart;
    // What lies between two pieces is a shot of its own.
    const hole = end - list.recordStart;
    if (recordIn > end && hole < master.frames)
      boundaries.push({ frame: hole, start: { kind: 'set', confidence: 1, frames: 0 } });
    end = Math.max(end, recordOut);
    if (frame >= master.frames) {
      notes.push({ line, reason: `begins at frame ${frame}, past the end of ${master.fileName}` });
      continue;
    }
    const middle = transition
      ? transition.from - list.recordStart + Math.floor(transition.frames / 2)
      : frame;
    boundaries.push({
      frame: Math.max(0, Math.min(master.frames - 1, middle)),
      start: transition
        ? { kind: 'dissolve', confidence: 1, frames: transition.frames }
        : { kind: 'set', confidence: 1, frames: 0 },
    });
    if (transition && transition.kind !== 'dissolve') {
      notes.push({ line, reason: `a ${transition.kind} is taken for a dissolve` });
    }
  }
  return { boundaries, notes };
}

const plain = (name: string): string =>
  name
    .replace(/^.*[\\/]/, '')
    .replace(/\.[A-Za-z0-9]{1,5}$/, '')
    .replace(/[^\p{Letter}\p{Number}]/gu, '')
    .toLowerCase();

/** The master that an event names: by its file, by its whole name, or by a reel's eight characters. */
function findMaster({ source, reel }: ListEvent, masters: readonly ListMaster[]): ListMaster | null {
  const file = source.replace(/^.*[\\/]/, '');
  const wanted = plain(source);
  const found = [
    masters.filter((master) => master.fileName === file),
    masters.filter((master) => wanted !== '' && plain(master.fileName) === wanted),
    masters.filter((master) => wanted.length >= 3 && plain(master.fileName).startsWith(wanted)),
  ].find((some) => some.length > 0);
  if (!found) return null;
  // Of several that are called alike the reel tells which.
  const reels = reelNames(masters);
  return found.find(({ id }) => reels.get(id) === reel) ?? found[0] ?? null;
}

/** A reel of eight letters and digits for each master, no two alike. */
export function reelNames(masters: readonly ListMaster[]): Map<string, string> {
  const names = new Map<string, string>();
  const taken = new Set<string>();
  for (const { id, fileName } of masters) {
    const base =
      fileName
        .replace(/\.[^.]+$/, '')
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, '')
        .slice(0, 8) || 'MASTER';
    let reel = base;
    for (let n = 2; taken.has(reel); n++) reel = base.slice(0, 8 - String(n).length) + n;
    taken.add(reel);
    names.set(id, reel);
  }
  return names;
}

/** Frames of a master that an event uses, as long as the list says; null where that cannot be read at its rate. */
function framesUsed(
  { used, recordIn, recordOut }: ListEvent,
  rate: FrameRate,
): { from: number; length: number } | null {
  if (used.kind === 'timecode') {
    const [from, to] = [used.in, used.out].map((text) => listTimecode(text, rate, used.drop));
    if (from == null || to == null) return null;
    // A still has no length of its own.
    return { from, length: to - from || recordOut - recordIn };
  }
  // Rates are written as decimals: one that is near enough counts as the master's, so that frames stay frames.
  const isSame = Math.abs(used.rate / rateValue(rate) - 1) < 0.0005;
  const at = (value: number) => Math.round(isSame ? value : (value / used.rate) * rateValue(rate));
  return { from: at(used.in), length: at(used.out) - at(used.in) };
}

/** A timecode's frame; a list that says drop-frame may still write colons. */
export function listTimecode(text: string, rate: FrameRate, drop: boolean): number | null {
  const isDrop = canDrop(rate) && (drop || text.includes(';'));
  return parseTimecode(text.replace(/[:.;](\d+)$/, isDrop ? ';$1' : ':$1'), rate);
}

/** A list's source times as a cut of the masters at hand. An event of an unknown source is of the first master. */
export function toCut(list: ReadList, masters: readonly ListMaster[]): { cut: Cut; notes: ListNote[] } {
  const notes: ListNote[] = [];
  const [first] = masters;
  if (!first) return { cut: [], notes: [{ line: 0, reason: 'there is no master' }] };
  const cut: Cut = [];
  for (const event of list.events) {
    const { line, source, transition } = event;
    const named = findMaster(event, masters);
    const master = named ?? first;
    if (!named && masters.length > 1)
      notes.push({ line, reason: `no master is called ${source}: ${first.fileName} is taken` });
    const frames = framesUsed(event, master.rate);
    if (!frames) {
      notes.push({ line, reason: `its timecodes are none at the rate of ${master.fileName}` });
      continue;
    }
    const from = fromStart(frames.from, master.frames, master.rate);
    const to = Math.min(master.frames, from + frames.length);
    if (from < 0 || to <= from) {
      notes.push({ line, reason: `its frames are not in ${master.fileName}` });
      continue;
    }
    if (to - from < frames.length)
      notes.push({ line, reason: `is cut off at the end of ${master.fileName}` });
    if (transition)
      notes.push({ line, reason: `its ${transition.kind} of ${transition.frames} frames becomes a cut` });
    cut.push({ master: master.id, in: from, out: to });
  }
  return { cut, notes };
}
