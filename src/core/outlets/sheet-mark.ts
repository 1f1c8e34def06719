import { shortHash } from '../figures/short-hash';
import type { RuleSheet } from './rule-sheet';

/** Mark that a job remembers of a rule sheet that judged it. */
export interface SheetMark {
  date: string;
  /** A hash of all that the sheet says. */
  version: string;
}

/**
 * Names of values in the order in which their hash has been taken from the beginning. A value that a later limit added
 * is not among them: it counts once it is set, so that a sheet that does not set it keeps its mark.
 */
const ORDER = [
  ...[
    'schemaVersion',
    'outlet',
    'id',
    'name',
    'about',
    'date',
    'source',
    'placements',
    'kind',
    'size',
    'sizes',
  ],
  ...[
    'bars',
    'length',
    'least',
    'most',
    'characters',
    'required',
    'best',
    'from',
    'to',
    'narrowest',
    'widest',
  ],
  ...['usual', 'x', 'y', 'width', 'height', 'bits', 'mostBytes', 'containers', 'video', 'codecs', 'profiles'],
  ...[
    'mostLevel',
    'mostBits',
    'mostRate',
    'num',
    'den',
    'interlaced',
    'oblongPixels',
    'audio',
    'sampleRates',
  ],
  ...['leastChannels', 'mostChannels', 'leastBits', 'loudness', 'target', 'within', 'mostPeak', 'words'],
  ...[
    'title',
    'description',
    'seen',
    'tags',
    'audiences',
    'muted',
    'childrenStatement',
    'longVideo',
    'zones',
  ],
  ...['phone', 'tablet', 'desk', 'cover', 'ladder'],
];
const PLACES: ReadonlyMap<string, number> = new Map(ORDER.map((name, i) => [name, i]));

/** Orders a value by its names, and leaves out what a later limit added and the sheet does not set. */
function order(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(order);
  if (typeof value !== 'object' || value === null) return value;
  const toPlace = (name: string) => PLACES.get(name) ?? ORDER.length;
  const entries = Object.entries(value)
    .filter(([name, one]) => PLACES.has(name) || one !== null)
    .sort(([a], [b]) => toPlace(a) - toPlace(b) || a.localeCompare(b));
  return Object.fromEntries(entries.map(([name, one]) => [name, order(one)]));
}

/** Makes the mark of a sheet: two sheets with the same say the same. */
export const toSheetMark = (sheet: RuleSheet): SheetMark => ({
  date: sheet.date,
  version: shortHash(order(sheet)),
});
