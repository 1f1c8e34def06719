import type { Cut } from '../cut/cut';
import type { Boundary } from '../cut/shots';
import { type FrameRate, rateValue } from '../time/frame-rate';

/** One piece of a list: which frames of which source stand where in the record. All at the list's rate, half-open. */
export interface ListEvent {
  /** Line of the file, from 1. */
  line: number;
  /** Reel, or name of the clip. */
  source: string;
  sourceIn: number;
  sourceOut: number;
  recordIn: number;
  recordOut: number;
  /** How it comes in: nothing for a cut. */
  transition: { kind: string; frames: number } | null;
}

/** Something in a list that cannot be used, or not as it stands. */
export interface ListNote {
  /** Line of the file, from 1. */
  line: number;
  reason: string;
}

/** What reading a list gave. A list that could not be read at all has no events and says why. */
export interface ReadList {
  title: string;
  events: ListEvent[];
  notes: ListNote[];
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
export function asShots(list: ReadList, master: ListMaster): { boundaries: Boundary[]; notes: ListNote[] } {
  const notes: ListNote[] = [];
  const boundaries: Boundary[] = [];
  const start = Math.min(...list.events.map((event) => event.recordIn));
  for (const { line, recordIn, transition } of list.events) {
    const frame = recordIn - start;
    if (frame >= master.frames) {
      notes.push({ line, reason: `begins at frame ${frame}, past the end of ${master.fileName}` });
      continue;
    }
    const half = transition ? Math.floor(transition.frames / 2) : 0;
    boundaries.push({
      frame: Math.min(master.frames - 1, frame + half),
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
    .replace(/[^A-Za-z0-9]/g, '')
    .toLowerCase();

/** The master that an event's source names: by its whole name, or by a reel's eight characters. */
function masterOf(source: string, masters: readonly ListMaster[]): ListMaster | null {
  const wanted = plain(source);
  if (wanted === '') return null;
  return (
    masters.find((master) => plain(master.fileName) === wanted) ??
    masters.find((master) => wanted.length >= 3 && plain(master.fileName).startsWith(wanted)) ??
    null
  );
}

/** A list's source times as a cut of the masters at hand. An event of an unknown source is of the first master. */
export function asCut(list: ReadList, masters: readonly ListMaster[]): { cut: Cut; notes: ListNote[] } {
  const notes: ListNote[] = [];
  const [first] = masters;
  if (!first) return { cut: [], notes: [{ line: 0, reason: 'there is no master' }] };
  const cut: Cut = [];
  for (const { line, source, sourceIn, sourceOut, transition } of list.events) {
    const named = masterOf(source, masters);
    const master = named ?? first;
    if (!named && masters.length > 1)
      notes.push({ line, reason: `no master is called ${source}: ${first.fileName} is taken` });
    const from = fromStart(sourceIn, master.frames, master.rate);
    const to = Math.min(master.frames, from + sourceOut - sourceIn);
    if (from < 0 || to <= from) {
      notes.push({ line, reason: `its frames are not in ${master.fileName}` });
      continue;
    }
    if (to - from < sourceOut - sourceIn)
      notes.push({ line, reason: `is cut off at the end of ${master.fileName}` });
    if (transition)
      notes.push({ line, reason: `its ${transition.kind} of ${transition.frames} frames becomes a cut` });
    cut.push({ master: master.id, in: from, out: to });
  }
  return { cut, notes };
}
