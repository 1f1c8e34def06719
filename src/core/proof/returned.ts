import { bitsLabel, bytesLabel } from '../figures/figures';
import { codecName } from '../master/master';
import { sizeLabel } from '../picture/size';
import type { Alignment } from './alignment';
import type { Turn } from './thumb';

/** Facts of a film. */
export interface FilmFacts {
  bytes: number;
  sha256: string;
  /** Upright. */
  width: number;
  height: number;
  frames: number;
  /** Frames a second. */
  rate: number;
  codec: string;
  /** A second, of the picture. */
  bits: number;
  /** SHA-256 over all coded pictures, and all coded sound; null for no sound. */
  pictureHash: string;
  sound: { hash: string; codec: string; sampleRate: number; channels: number } | null;
}

/** The two films beside each other. */
export interface ReturnedFile {
  sent: FilmFacts;
  got: FilmFacts;
  /** Not there where the coded pictures are the same. */
  alignment: Alignment | null;
  /** Likeness of some frames all along, SSIM of luma, and the least alike; null where none were compared. */
  ssim: { mean: number; worst: number; frame: number; frames: number } | null;
  /** How much the sounds rise and fall together, −1…1; null where one of them is not there, or silent. */
  heard: number | null;
  /**
   * True when the sound that was sent is audible, and when the one that came back is; null for one that
   * cannot be decoded here.
   */
  audible: { sent: boolean | null; got: boolean | null };
}

/** Verdict on a file, from the mildest to the worst. */
export type Verdict = 'same' | 'restamped' | 'changed' | 'other';

/** Change that was made to a film. */
export interface FilmChange {
  kind:
    | 'smaller'
    | 'larger'
    | 'reshaped'
    | 'slower'
    | 'faster'
    | 'speed'
    | 'turned'
    | 'cut'
    | 'longer'
    | 'compressed'
    | 'muted'
    | 'other-sound'
    | 'sound-compressed';
  words: string;
}

/** Thumbs of the same film differ by less than this, in codes, however much it was compressed. */
const OTHER_FILM = 22;
/** Sounds of the same film rise and fall together more than this. */
const OTHER_SOUND = 0.6;
/** Pictures that are more alike than this were not coded again. */
const UNTOUCHED = 0.9999;
/** Rates that differ by less than this share are the same. */
const SAME_RATE = 0.005;
/** A picture's shape that differs by more than this share was changed. */
const SAME_SHAPE = 0.02;

const count = (number: number, what: string): string => `${number} ${what}${number === 1 ? '' : 's'}`;
const rateWords = (rate: number): string => `${Number(rate.toFixed(3))} frames a second`;

/** Judges a file that came back, and lists what was done to it. */
export function judgeReturned(returned: ReturnedFile): { verdict: Verdict; changes: FilmChange[] } {
  const { sent, got, alignment } = returned;
  if (sent.sha256 === got.sha256) return { verdict: 'same', changes: [] };
  if (alignment && alignment.difference > OTHER_FILM) return { verdict: 'other', changes: [] };
  const changes = [...pictureChanges(returned), ...soundChanges(returned)];
  return { verdict: changes.length === 0 ? 'restamped' : 'changed', changes };
}

/** The turn that another one undoes. A mirrored one undoes itself. */
const doneTurn = ({ quarters, mirrored }: Turn): Turn => ({
  quarters: mirrored ? quarters : (((4 - quarters) % 4) as Turn['quarters']),
  mirrored,
});

function pictureChanges(returned: ReturnedFile): FilmChange[] {
  const { sent, got, alignment, ssim } = returned;
  const changes: FilmChange[] = [];
  const add = (kind: FilmChange['kind'], words: string) => changes.push({ kind, words });
  const turn = doneTurn(alignment?.turn ?? { quarters: 0, mirrored: false });
  const upright =
    turn.quarters % 2 === 0
      ? { width: got.width, height: got.height }
      : { width: got.height, height: got.width };
  const sizes = `${got.width}×${got.height}; ${sent.width}×${sent.height} was sent`;
  const share = (upright.width * upright.height) / (sent.width * sent.height);
  const shape = (upright.width / upright.height) * (sent.height / sent.width);
  if (Math.abs(shape - 1) > SAME_SHAPE) add('reshaped', `Its shape was changed: ${sizes}.`);
  else if (share < 1) add('smaller', `It was made smaller: ${sizes}.`);
  else if (share > 1) add('larger', `It was made larger: ${sizes}.`);
  if (turn.quarters !== 0)
    add('turned', `It was turned by ${turn.quarters * 90}°${turn.mirrored ? ' and mirrored' : ''}.`);
  else if (turn.mirrored) add('turned', 'It was mirrored.');
  const isOtherRate = Math.abs(got.rate / sent.rate - 1) > SAME_RATE;
  const rates = `${rateWords(got.rate)}; ${Number(sent.rate.toFixed(3))} were sent`;
  const isOtherSpeed = isOtherRate && got.frames === sent.frames;
  if (isOtherSpeed) add('speed', `It plays ${got.rate < sent.rate ? 'slower' : 'faster'}: ${rates}.`);
  else if (isOtherRate && got.rate < sent.rate) add('slower', `It has fewer frames: ${rates}.`);
  else if (isOtherRate) add('faster', `It has more frames: ${rates}.`);
  const { start, end, between } = alignment?.missing ?? { start: 0, end: 0, between: 0 };
  const places = [
    start > 0 && `${count(start, 'frame')} at the beginning`,
    between > 0 && `${count(between, 'frame')} in between`,
    end > 0 && `${count(end, 'frame')} at the end`,
  ].filter(Boolean);
  if (places.length > 0) add('cut', `It was cut: ${places.join(', ')}.`);
  const length = (film: FilmFacts) => film.frames / film.rate;
  const longer = length(got) - length(sent) + (start + end + between) / sent.rate;
  if (!isOtherSpeed && longer > 1.5 / Math.min(got.rate, sent.rate))
    add('longer', `It is ${longer.toFixed(2)} s longer.`);
  // Frames that were only cut off are still the same, bit for bit.
  const isKept = sent.pictureHash === got.pictureHash || (ssim !== null && ssim.worst > UNTOUCHED);
  if (!isKept) {
    const likeness = ssim
      ? ` Likeness (SSIM) of ${count(ssim.frames, 'frame')}: ${ssim.mean.toFixed(3)}, the least ${ssim.worst.toFixed(3)}.`
      : '';
    add(
      'compressed',
      `Its picture was compressed again: ${bitsLabel(got.bits)}; ${bitsLabel(sent.bits)} were sent.${likeness}`,
    );
  }
  return changes;
}

function soundChanges({ sent, got, heard, audible }: ReturnedFile): FilmChange[] {
  if (!sent.sound || audible.sent === false) {
    return got.sound && audible.got ? [{ kind: 'other-sound', words: 'It has a sound; none was sent.' }] : [];
  }
  if (!got.sound) return [{ kind: 'muted', words: 'It has no sound any more.' }];
  if (got.sound.hash === sent.sound.hash) return [];
  if (audible.got === false) return [{ kind: 'muted', words: 'Its sound is silence.' }];
  if (heard !== null && heard < OTHER_SOUND) return [{ kind: 'other-sound', words: 'It has another sound.' }];
  const of = ({ codec, sampleRate, channels }: NonNullable<FilmFacts['sound']>) =>
    `${codecName(codec)}, ${sampleRate / 1000} kHz, ${count(channels, 'channel')}`;
  return [
    {
      kind: 'sound-compressed',
      words: `Its sound was compressed again: ${of(got.sound)}; ${of(sent.sound)} was sent.`,
    },
  ];
}

/** Heading of each verdict. */
export const VERDICTS: Record<Verdict, string> = {
  same: 'It came through: bit for bit the file that was exported.',
  restamped: 'Every picture and every sound is the same; the file around them was written anew.',
  changed: 'It did not come through unchanged.',
  other: 'This is another film.',
};

/** Lists the facts of two films, side by side. */
export function factRows({
  sent,
  got,
}: Pick<ReturnedFile, 'sent' | 'got'>): { what: string; sent: string; got: string }[] {
  const sound = ({ sound: own }: FilmFacts) =>
    own ? `${codecName(own.codec)} ${own.sampleRate / 1000} kHz, ${count(own.channels, 'channel')}` : 'none';
  const rows: [string, (film: FilmFacts) => string][] = [
    ['File', ({ bytes }) => `${bytesLabel(bytes)} (${bytes} bytes)`],
    ['Size', sizeLabel],
    ['Frames', ({ frames, rate }) => `${frames}, ${rateWords(rate)}`],
    ['Picture', ({ codec, bits }) => `${codecName(codec)}, ${bitsLabel(bits)}`],
    ['Sound', sound],
    ['SHA-256', ({ sha256 }) => `${sha256.slice(0, 16)}…`],
  ];
  return rows.map(([what, of]) => ({ what, sent: of(sent), got: of(got) }));
}
