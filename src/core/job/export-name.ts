import { bracesProblem, fillBraces } from '../figures/in-braces';
import { findPlacement, findTarget } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { PLAIN_ENCODING } from '../rate/encoding';
import { type FormatId, chooseFormat, FORMATS } from '../rate/format';
import { activeCanvas, clipName } from './clip';
import { activeClip, type Job } from './job';

/** Longest part that one piece takes of a file name, and longest pattern, in characters. */
const LONGEST = 60;
const LONGEST_PATTERN = 120;

/** Parts in braces that a pattern of file names may hold, with the meaning of each. */
export const NAME_PARTS = {
  clip: 'the clip’s title',
  job: 'the job’s title',
  placement: 'outlet and placement',
  outlet: 'the outlet alone',
  size: 'the canvas size',
  date: 'the day',
  number: 'the clip’s number in the job',
} as const;
type NamePart = keyof typeof NAME_PARTS;

/** Every part as a letter, to see what is there without them. */
const ANY_PART = Object.fromEntries(Object.keys(NAME_PARTS).map((name) => [name, () => 'x']));

/** How files are called where a person chose nothing: `kite-day_verrow-short_1080x1920.mp4`. */
export const PLAIN_PATTERN = '{clip}_{placement}_{size}';

/** Finds what is wrong with a pattern, in words; null for a good one. */
export function patternProblem(pattern: string): string | null {
  const problem = bracesProblem(pattern, NAME_PARTS);
  if (problem !== null) return problem;
  if (pattern.length > LONGEST_PATTERN) return `At most ${LONGEST_PATTERN} characters.`;
  return clean(fillBraces(pattern, ANY_PART)) === '' ? 'A name needs at least a letter or a figure.' : null;
}

/** Values that the name of a file is made of. */
interface NameValues {
  sheets: Sheets;
  /** A pattern with no problem; see {@link patternProblem}. */
  pattern?: string;
  /** ISO 8601; its day is what counts. */
  now?: string;
}

/** The name of an export of the canvas that a job works on. */
export function exportFileName(
  job: Pick<Job, 'edit' | 'title'>,
  { sheets, pattern = PLAIN_PATTERN, now = new Date().toISOString() }: NameValues,
): string {
  const clip = activeClip(job.edit);
  const { placement, width, height } = activeCanvas(clip);
  const parts: Record<NamePart, () => string> = {
    clip: () => words(clipName(clip)) || 'clip',
    job: () => words(job.title) || 'job',
    placement: () => (placement ?? 'own').replace('/', '-'),
    outlet: () => (placement && findPlacement(sheets, placement)?.sheet.outlet) ?? 'own',
    size: () => `${width}x${height}`,
    date: () => now.slice(0, 10),
    number: () => String(job.edit.clips.findIndex(({ id }) => id === clip.id) + 1).padStart(2, '0'),
  };
  return `${clean(fillBraces(pattern, parts)) || 'clip'}.${FORMATS[getFormat(job, sheets)].extension}`;
}

/** Text as small letters and figures with hyphens between. */
const words = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[^\p{Letter}\p{Number}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, LONGEST);

/** Without what file systems do not take in a name. */
const clean = (name: string): string =>
  name.replace(/[<>:"/\\|?*\u0000-\u001f]+/g, '-').replace(/^[.\s-]+|[.\s]+$/g, '');

/** Names of which no two are the same: later ones are numbered. */
export function uniqueNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const [, stem = name, ending = ''] = /^(.*?)(\.\w+)?$/.exec(name) ?? [];
    let own = name;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${stem} (${n})${ending}`;
    taken.add(own.toLowerCase());
    return own;
  });
}

/** The format that an export of the canvas at hand is made as. */
function getFormat({ edit }: Pick<Job, 'edit'>, sheets: Sheets): FormatId {
  const canvas = activeCanvas(activeClip(edit));
  const { format } = canvas.encoding ?? PLAIN_ENCODING;
  return format ?? chooseFormat(findTarget(sheets, canvas).placement);
}
