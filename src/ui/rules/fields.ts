import { AUDIENCES } from '@core/outlets/audience';
import { AUDIO_CODECS, CONTAINERS, PROFILES, VIDEO_CODECS } from '@core/outlets/placement';
import { codecName } from '@core/master/master';

export interface Option {
  value: string;
  label: string;
}

/** How a value of a placement is entered. Numbers are shown divided by `scale`, in `unit`. */
export type FieldKind =
  | { kind: 'text'; optional?: true }
  | { kind: 'number'; unit: string; scale: number; optional?: true }
  | { kind: 'numbers'; unit: string; scale: number }
  | { kind: 'flag' }
  | { kind: 'one'; options: readonly Option[]; number?: true }
  | { kind: 'some'; options: readonly Option[] }
  | { kind: 'rate' };

/** One value of a placement. */
export interface Field {
  /** Where it lies in the placement. */
  path: string;
  label: string;
  as: FieldKind;
}

/** A group that is there or not: what it holds, and what it begins with. */
export interface Group {
  path: string;
  label: string;
  begins: object;
  fields: readonly Field[];
}

export interface Section {
  title: string;
  fields: readonly Field[];
  groups?: readonly Group[];
}

const named = (values: readonly string[], label = (value: string) => value): Option[] =>
  values.map((value) => ({ value, label: label(value) }));
const upper = (value: string): string => value.toUpperCase();
const capital = (value: string): string => value.charAt(0).toUpperCase() + value.slice(1);

const number = (unit: string, scale = 1) => ({ kind: 'number', unit, scale }) as const;
const maybe = (unit: string, scale = 1) => ({ kind: 'number', unit, scale, optional: true }) as const;

/** Everything of a placement that is a plain value, by section. Sizes, zones and the ladder have fields of their own. */
export const SECTIONS: readonly Section[] = [
  {
    title: 'Length',
    fields: [
      { path: 'length.most', label: 'Longest', as: number('s') },
      { path: 'length.least', label: 'Shortest', as: maybe('s') },
    ],
    groups: [
      {
        path: 'length.best',
        label: 'Where clips do best',
        begins: { from: 15, to: 20 },
        fields: [
          { path: 'from', label: 'From', as: number('s') },
          { path: 'to', label: 'To', as: number('s') },
        ],
      },
    ],
  },
  {
    title: 'File and picture',
    fields: [
      { path: 'mostBytes', label: 'Largest file', as: number('MB', 1e6) },
      { path: 'containers', label: 'Containers', as: { kind: 'some', options: named(CONTAINERS, upper) } },
      {
        path: 'video.codecs',
        label: 'Video codecs',
        as: { kind: 'some', options: named(VIDEO_CODECS, codecName) },
      },
      {
        path: 'video.profiles',
        label: 'Profiles of H.264',
        as: { kind: 'some', options: named(PROFILES, capital) },
      },
      { path: 'video.mostLevel', label: 'Highest level of H.264', as: number('', 10) },
      { path: 'video.mostBits', label: 'Most video bits', as: maybe('Mb/s', 1e6) },
      { path: 'video.mostRate', label: 'Highest frame rate', as: { kind: 'rate' } },
      {
        path: 'bars',
        label: 'Black bars',
        as: {
          kind: 'one',
          options: [
            { value: 'refused', label: 'Refused' },
            { value: 'discouraged', label: 'Discouraged' },
          ],
        },
      },
      { path: 'video.interlaced', label: 'Interlaced pictures are taken', as: { kind: 'flag' } },
      { path: 'video.oblongPixels', label: 'Pixels that are not square are taken', as: { kind: 'flag' } },
    ],
  },
  {
    title: 'Sound',
    fields: [
      { path: 'audio.required', label: 'Sound is required', as: { kind: 'flag' } },
      {
        path: 'audio.codecs',
        label: 'Sound codecs',
        as: { kind: 'some', options: named(AUDIO_CODECS, codecName) },
      },
      { path: 'audio.sampleRates', label: 'Sample rates', as: { kind: 'numbers', unit: 'kHz', scale: 1000 } },
      {
        path: 'audio.leastChannels',
        label: 'Fewest channels',
        as: { kind: 'one', number: true, options: named(['1', '2']) },
      },
      { path: 'audio.mostChannels', label: 'Most channels', as: number('') },
      { path: 'audio.leastBits', label: 'Fewest sound bits', as: maybe('kb/s', 1000) },
      { path: 'audio.mostPeak', label: 'Highest true peak', as: maybe('dBTP') },
    ],
    groups: [
      {
        path: 'audio.loudness',
        label: 'Loudness that clips are brought to',
        begins: { target: -14, within: 2 },
        fields: [
          { path: 'target', label: 'Target', as: number('LUFS') },
          { path: 'within', label: 'Within', as: number('LU') },
        ],
      },
    ],
  },
  {
    title: 'Words',
    fields: [
      { path: 'words.title', label: 'Title', as: number('characters') },
      { path: 'words.description.most', label: 'Description', as: number('characters') },
      { path: 'words.description.seen', label: 'Seen of it at first', as: number('characters') },
      { path: 'words.tags.most', label: 'Most tags', as: number('') },
      { path: 'words.tags.characters', label: 'Longest tag', as: number('characters') },
      { path: 'words.tags.required', label: 'Required tag', as: { kind: 'text', optional: true } },
    ],
  },
  {
    title: 'Post',
    fields: [
      {
        path: 'audiences',
        label: 'Who can see it',
        as: { kind: 'some', options: named(AUDIENCES, capital) },
      },
      { path: 'muted', label: 'Plays without sound at first', as: { kind: 'flag' } },
      { path: 'childrenStatement', label: 'Asks whether it is made for children', as: { kind: 'flag' } },
      {
        path: 'longVideo',
        label: 'Link to a long video',
        as: { kind: 'one', options: named(['none', 'welcome', 'needed'], capital) },
      },
    ],
    groups: [
      {
        path: 'cover',
        label: 'Takes a cover',
        begins: { width: 1080, height: 1920, mostBytes: 2_000_000 },
        fields: [
          { path: 'width', label: 'Width', as: number('px') },
          { path: 'height', label: 'Height', as: number('px') },
          { path: 'mostBytes', label: 'Largest', as: number('kB', 1000) },
        ],
      },
    ],
  },
];
