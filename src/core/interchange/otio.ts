import { type Node, type ParseError, parseTree, printParseErrorCode } from 'jsonc-parser';
import type { Cut } from '../cut/cut';
import { type FrameRate, rateValue } from '../time/frame-rate';
import type { ListEvent, ListMaster, ListNote, ReadList } from './cut-list';

/**
 * OpenTimelineIO files (`.otio`): the JSON schemas of the Academy Software Foundation's project of that name, as its
 * documentation gives them (Timeline.1, Stack.1, Track.1, Clip.1 and .2, Gap.1, Transition.1, RationalTime.1).
 */

/** Position of a reader, for its messages. */
interface Context {
  lineAt: (offset: number) => number;
  rate: FrameRate;
  events: ListEvent[];
  notes: ListNote[];
}

/** Finds the lines, from 1, of offsets in a text. */
function lineFinder(text: string): (offset: number) => number {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return (offset) => {
    let [low, high] = [0, starts.length];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((starts[middle] as number) <= offset) low = middle;
      else high = middle;
    }
    return low + 1;
  };
}

const findNode = (node: Node | undefined, key: string): Node | undefined =>
  node?.children?.find((node) => node.children?.[0]?.value === key)?.children?.[1];
const toText = (node: Node | undefined): string => (typeof node?.value === 'string' ? node.value : '');
const toNumber = (node: Node | undefined): number | null =>
  typeof node?.value === 'number' && Number.isFinite(node.value) ? node.value : null;
const toSchema = (node: Node | undefined): string =>
  toText(findNode(node, 'OTIO_SCHEMA')).split('.')[0] ?? '';
const listItems = (node: Node | undefined): Node[] => (node?.type === 'array' ? (node.children ?? []) : []);

/** Reads a timeline. Never throws: what cannot be used is told with its line and the reason. @param rate of the result. */
export function readOtio(text: string, rate: FrameRate): ReadList {
  const errors: ParseError[] = [];
  const root = parseTree(text, errors, { disallowComments: true });
  const [error] = errors;
  if (!root || error) {
    const line = lineFinder(text)(error?.offset ?? 0);
    return {
      title: '',
      events: [],
      notes: [{ line, reason: `is not JSON: ${error ? printParseErrorCode(error.error) : 'empty'}` }],
      recordStart: 0,
    };
  }
  const context: Context = { lineAt: lineFinder(text), rate, events: [], notes: [] };
  const title = toText(findNode(root, 'name'));
  const schema = toSchema(root);
  if (schema === 'Timeline') readStack(findNode(root, 'tracks'), context);
  else if (schema === 'Track') readTrack(root, context);
  else if (schema === 'Stack') readStack(root, context);
  else
    note(
      context,
      root,
      schema ? `a ${schema} does not hold a timeline` : 'has no OTIO_SCHEMA: this is not a timeline',
    );
  if (context.events.length === 0 && context.notes.length === 0) note(context, root, 'holds no clip');
  return { title, events: context.events, notes: context.notes, recordStart: 0 };
}

function note({ lineAt, notes }: Context, node: Node | undefined, reason: string): void {
  notes.push({ line: lineAt(node?.offset ?? 0), reason });
}

/** The first picture track is read; others cannot be shown in one picture. */
function readStack(stack: Node | undefined, context: Context): void {
  const tracks = listItems(findNode(stack, 'children'));
  if (tracks.length === 0) return note(context, stack, 'has no tracks');
  let read = false;
  for (const track of tracks) {
    const kind = toText(findNode(track, 'kind')) || 'Video';
    const name = toText(findNode(track, 'name')) || 'without a name';
    if (toSchema(track) !== 'Track')
      note(context, track, `a ${toSchema(track) || 'thing without a schema'} among the tracks is left out`);
    else if (kind !== 'Video')
      note(context, track, `track ${name} holds ${kind.toLowerCase()}: only pictures are used`);
    else if (findNode(track, 'enabled')?.value === false)
      note(context, track, `track ${name} is switched off and is left out`);
    else if (read) note(context, track, `track ${name} lies over the first picture track and is left out`);
    else {
      readTrack(track, context);
      // One that holds nothing to be used does not stand for the picture.
      read = context.events.length > 0;
    }
  }
}

function readTrack(track: Node, context: Context): void {
  let record = 0;
  let transition: ListEvent['transition'] = null;
  for (const child of listItems(findNode(track, 'children'))) {
    const schema = toSchema(child);
    if (schema === 'Gap') {
      record += toFrames(findNode(findNode(child, 'source_range'), 'duration'), context) ?? 0;
      transition = null;
    } else if (schema === 'Transition') {
      const before = toFrames(findNode(child, 'in_offset'), context) ?? 0;
      const after = toFrames(findNode(child, 'out_offset'), context) ?? 0;
      const kind = toKind(toText(findNode(child, 'transition_type')));
      transition = { kind, frames: before + after, from: record - before };
    } else if (schema === 'Clip') {
      const event = readClip(child, record, transition, context);
      transition = null;
      if (!event) continue;
      if (findNode(child, 'enabled')?.value === false)
        note(context, child, `clip ${event.source} is switched off`);
      else context.events.push(event);
      record = event.recordOut;
    } else {
      note(context, child, `a ${schema || 'thing without a schema'} inside a track cannot be used`);
      record += toFrames(findNode(findNode(child, 'source_range'), 'duration'), context) ?? 0;
    }
  }
}

const toKind = (type: string): string => (/dissolve/i.test(type) || type === '' ? 'dissolve' : type);

function readClip(
  clip: Node,
  record: number,
  transition: ListEvent['transition'],
  context: Context,
): ListEvent | null {
  const name = toText(findNode(clip, 'name'));
  const media = findMedia(clip);
  const range = findNode(clip, 'source_range');
  const available = findNode(media, 'available_range');
  const chosen = range?.type === 'object' ? range : available;
  const start = toTime(findNode(chosen, 'start_time'));
  const duration = toTime(findNode(chosen, 'duration'));
  const length = toFrames(findNode(chosen, 'duration'), context);
  if (start === null || duration === null || length === null) {
    note(context, clip, `clip ${name || 'without a name'} has no source range that can be read`);
    return null;
  }
  if (duration.value <= 0) {
    note(context, clip, `clip ${name || 'without a name'} is empty`);
    return null;
  }
  for (const effect of listItems(findNode(clip, 'effects'))) {
    const speed = toNumber(findNode(effect, 'time_scalar'));
    const what =
      speed === null
        ? `the effect ${toText(findNode(effect, 'effect_name')) || toSchema(effect)}`
        : `a speed of ${speed}`;
    note(context, effect, `${what} cannot be used: the frames play as they are`);
  }
  const url = toText(findNode(media, 'target_url'));
  // The media's own time may begin anywhere: its first frame is where its available range starts.
  const begins = toTime(findNode(available, 'start_time'));
  const first = begins === null ? start.value : start.value - (begins.value / begins.rate) * start.rate;
  return {
    line: context.lineAt(clip.offset),
    source: url ? decodeUrl(url) : name,
    reel: null,
    used: {
      ...{ kind: 'time', rate: start.rate, in: first },
      out: first + (duration.value / duration.rate) * start.rate,
    },
    recordIn: record,
    // One of a faster source may be shorter than a frame of the record.
    recordOut: record + Math.max(1, length),
    transition: record === 0 ? null : transition,
  };
}

function findMedia(clip: Node): Node | undefined {
  const key = toText(findNode(clip, 'active_media_reference_key')) || 'DEFAULT_MEDIA';
  return findNode(findNode(clip, 'media_references'), key) ?? findNode(clip, 'media_reference');
}

function decodeUrl(url: string): string {
  try {
    return decodeURIComponent(url);
  } catch {
    return url;
  }
}

/** A RationalTime, or null where it is none. */
function toTime(time: Node | undefined): { value: number; rate: number } | null {
  const value = toNumber(findNode(time, 'value'));
  const rate = toNumber(findNode(time, 'rate'));
  return value === null || rate === null || rate <= 0 ? null : { value, rate };
}

/** A RationalTime as whole frames at the context's rate, or null where it is none. */
function toFrames(time: Node | undefined, { rate }: Context): number | null {
  const found = toTime(time);
  if (!found) return null;
  const { value, rate: own } = found;
  // Rates are written as decimals: one that is near enough counts as ours, so that frames stay frames.
  const same = Math.abs(own / rateValue(rate) - 1) < 0.0005;
  const frames = Math.round(same ? value : (value / own) * rateValue(rate));
  return Number.isSafeInteger(frames) ? frames : null;
}

const rational = (value: number, rate: FrameRate) => ({
  OTIO_SCHEMA: 'RationalTime.1',
  rate: rateValue(rate),
  value,
});
const timeRange = (from: number, length: number, rate: FrameRate) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  duration: rational(length, rate),
  start_time: rational(from, rate),
});

/** Writes a cut as a timeline with one picture track. @throws RangeError for a range of an unknown master. */
export function writeOtio(title: string, cut: Cut, masters: readonly ListMaster[]): string {
  const children = cut.map((range, i) => {
    const master = masters.find((master) => master.id === range.master);
    if (!master) throw new RangeError(`no master ${range.master}`);
    return {
      OTIO_SCHEMA: 'Clip.2',
      name: `${i + 1}`,
      source_range: timeRange(range.in, range.out - range.in, master.rate),
      media_references: {
        DEFAULT_MEDIA: {
          OTIO_SCHEMA: 'ExternalReference.1',
          name: master.fileName,
          available_range: timeRange(0, master.frames, master.rate),
          target_url: encodeURI(master.fileName),
          metadata: {},
        },
      },
      active_media_reference_key: 'DEFAULT_MEDIA',
      effects: [],
      markers: [],
      enabled: true,
      metadata: {},
    };
  });
  const track = {
    OTIO_SCHEMA: 'Track.1',
    name: 'Picture',
    kind: 'Video',
    source_range: null,
    children,
    effects: [],
    markers: [],
    enabled: true,
    metadata: {},
  };
  const timeline = {
    OTIO_SCHEMA: 'Timeline.1',
    name: title,
    global_start_time: null,
    tracks: {
      OTIO_SCHEMA: 'Stack.1',
      name: 'tracks',
      source_range: null,
      children: [track],
      effects: [],
      markers: [],
      enabled: true,
      metadata: {},
    },
    metadata: {},
  };
  return JSON.stringify(timeline, null, 2) + '\n';
}
