import { bitsLabel, bytesLabel } from '../figures/figures';
import { codecName } from '../master/master';
import type { Borders } from '../picture/borders';
import type { Size } from '../picture/size';
import { compareRates, framesWithin, type FrameRate, rateLabel, secondsOf } from '../time/frame-rate';
import type { Audience } from './audience';
import { characters } from './characters';
import type { Placement } from './placement';
import { sizesLabel, takesSize } from './taken-sizes';
import { isWebAddress } from './web-address';

/** What an outlet reads from a file that it was sent. */
export interface SentFile {
  /** By its short name, such as `mp4`. */
  container: string;
  width: number;
  height: number;
  rate: FrameRate;
  frames: number;
  bytes: number;
  video: {
    codec: string;
    /** Of H.264: its profile, and its level times ten; null for other codecs. */
    profile: string | null;
    level: number | null;
    /** A second. */
    bits: number;
    interlaced: boolean;
    oblongPixels: boolean;
  };
  audio: { codec: string; sampleRate: number; channels: number } | null;
  /** Whether every one of its frames could be decoded. */
  decodes: boolean;
  /** Black borders of its decoded picture. */
  borders: Borders;
}

/** What was sent with it. */
export interface SentPost {
  title: string;
  description: string;
  /** Without their marks. */
  tags: readonly string[];
  audience: Audience;
  /** Whether it is made for children; null where nothing was said. */
  forChildren: boolean | null;
  /** The address of the long video that it came from. */
  longVideo: string | null;
  /** Null where none was sent: then the first frame is it. */
  cover: SentCover | null;
}

/** A cover as an outlet reads it. */
export interface SentCover {
  bytes: number;
  /** Null where it is no picture that can be read. */
  size: Size | null;
}

/** What a refusal is about. */
export type Limit =
  | 'container'
  | 'damaged'
  | 'size'
  | 'length'
  | 'rate'
  | 'file-size'
  | 'video'
  | 'level'
  | 'bit-rate'
  | 'scan'
  | 'pixels'
  | 'sound'
  | 'bars'
  | 'title'
  | 'description'
  | 'tags'
  | 'audience'
  | 'children'
  | 'long-video'
  | 'cover';

/** One limit that was broken, and how. */
export interface Refusal {
  limit: Limit;
  reason: string;
}

type Test = (placement: Placement) => string | null;

export const anyOf = (names: readonly string[]): string => names.join(' or ');
export const levelName = (level: number): string => (level / 10).toFixed(1);

/** Why an outlet refuses a post under a placement's rules; nothing when it takes it. */
export function refusals(file: SentFile, post: SentPost, placement: Placement): Refusal[] {
  const tests = { ...ofFile(file), ...ofSound(file), ...ofPost(post) };
  return Object.entries(tests).flatMap(([limit, test]) => {
    const reason = test(placement);
    return reason === null ? [] : [{ limit: limit as Limit, reason }];
  });
}

const SIDES = ['left', 'top', 'right', 'bottom'] as const;
const sizeLabel = ({ width, height }: Size): string => `${width}×${height}`;

function ofFile(file: SentFile): Partial<Record<Limit, Test>> {
  const { container, rate, frames, bytes, video, borders } = file;
  const seconds = secondsOf(frames, rate);
  return {
    container: ({ name, containers }) =>
      (containers as readonly string[]).includes(container)
        ? null
        : `The file is ${container.toUpperCase()}; ${name} takes ${anyOf(containers).toUpperCase()}.`,
    damaged: () =>
      file.decodes ? null : 'The picture cannot be decoded to its end: the file is damaged or was cut off.',
    size: ({ name, sizes }) =>
      takesSize(sizes, file)
        ? null
        : `The picture is ${sizeLabel(file)}; ${name} takes ${sizesLabel(sizes)}.`,
    length: ({ length: { least, most } }) => {
      if (frames > framesWithin(most, rate))
        return `The clip lasts ${seconds.toFixed(2)} s; the limit is ${most} s.`;
      return least !== null && seconds < least
        ? `The clip lasts ${seconds.toFixed(2)} s; it must last ${least} s at least.`
        : null;
    },
    rate: ({ video: { mostRate } }) =>
      compareRates(rate, mostRate) > 0
        ? `The clip runs at ${rateLabel(rate)} fps; at most ${rateLabel(mostRate)} fps are taken.`
        : null,
    'file-size': ({ mostBytes }) =>
      bytes > mostBytes ? `The file has ${bytesLabel(bytes)}; the cap is ${bytesLabel(mostBytes)}.` : null,
    video: ({ video: { codecs, profiles } }) => {
      if (!(codecs as readonly string[]).includes(video.codec))
        return `The picture is ${codecName(video.codec)}, not ${anyOf(codecs.map(codecName))}.`;
      return video.profile !== null && !(profiles as readonly string[]).includes(video.profile)
        ? `The picture is in the ${video.profile} profile of H.264; ${anyOf(profiles)} is taken.`
        : null;
    },
    level: ({ video: { mostLevel } }) =>
      video.level !== null && video.level > mostLevel
        ? `The picture needs level ${levelName(video.level)} of H.264; at most ${levelName(mostLevel)} is taken.`
        : null,
    'bit-rate': ({ video: { mostBits } }) =>
      mostBits !== null && video.bits > mostBits
        ? `The picture has ${bitsLabel(video.bits)}; at most ${bitsLabel(mostBits)} are taken.`
        : null,
    scan: ({ video: { interlaced } }) =>
      video.interlaced && !interlaced ? 'The picture is interlaced.' : null,
    pixels: ({ video: { oblongPixels } }) =>
      video.oblongPixels && !oblongPixels ? 'The pixels of the picture are not square.' : null,
    bars: ({ bars }) =>
      bars === 'refused' && SIDES.some((side) => borders[side] > 0)
        ? `The picture has black bars: ${SIDES.map((side) => `${side} ${borders[side]}`).join(', ')} pixels.`
        : null,
  };
}

function ofSound({ audio: sound }: SentFile): Partial<Record<Limit, Test>> {
  return {
    sound: ({ audio }) => {
      if (!sound) return audio.required ? 'The clip has no sound.' : null;
      if (
        !(audio.codecs as readonly string[]).includes(sound.codec) ||
        !audio.sampleRates.includes(sound.sampleRate)
      ) {
        const rates = anyOf(audio.sampleRates.map((rate) => String(rate / 1000)));
        return `The sound must be ${anyOf(audio.codecs.map(codecName))} at ${rates} kHz.`;
      }
      if (sound.channels < audio.leastChannels)
        return `The sound is mono; at least ${audio.leastChannels} channels are taken.`;
      // Its bit rate is not held against it: silence takes next to none, whatever was asked for.
      return sound.channels > audio.mostChannels
        ? `The sound has ${sound.channels} channels; at most ${audio.mostChannels} are taken.`
        : null;
    },
  };
}

function ofPost(post: SentPost): Partial<Record<Limit, Test>> {
  return {
    title: ({ words }) => {
      const length = characters(post.title.trim());
      if (length === 0) return 'The post has no title.';
      return length > words.title ? `The title has over ${words.title} characters.` : null;
    },
    description: ({ words: { description } }) =>
      characters(post.description) > description.most
        ? `The description has over ${description.most} characters.`
        : null,
    tags: ({ words: { tags } }) => {
      if (tags.required !== null && !hasTag(post.tags, tags.required))
        return `The tag #${tags.required} is missing.`;
      if (post.tags.length > tags.most)
        return `There are ${post.tags.length} tags; at most ${tags.most} are taken.`;
      const long = post.tags.find((tag) => characters(tag) > tags.characters);
      return long === undefined ? null : `The tag #${long} has over ${tags.characters} characters.`;
    },
    audience: ({ audiences }) =>
      audiences.includes(post.audience) ? null : `A post cannot be ${post.audience} here.`,
    children: ({ childrenStatement }) =>
      childrenStatement && post.forChildren === null
        ? 'The post does not say whether the clip is made for children.'
        : null,
    cover: ({ cover }) => {
      if (!cover || !post.cover) return null;
      if (!post.cover.size) return 'The cover is not a picture that can be read.';
      const { bytes, size } = post.cover;
      if (bytes > cover.mostBytes)
        return `The cover has ${bytesLabel(bytes)}; the cap is ${bytesLabel(cover.mostBytes)}.`;
      return size.width === cover.width && size.height === cover.height
        ? null
        : `The cover is ${sizeLabel(size)}, not ${sizeLabel(cover)}.`;
    },
    'long-video': ({ longVideo }) => {
      if (longVideo === 'none') return null;
      if (!post.longVideo) return longVideo === 'needed' ? 'The link to the long video is missing.' : null;
      return isWebAddress(post.longVideo) ? null : 'The link to the long video is not a web address.';
    },
  };
}

/** Whether a tag is among others; capitals make no difference. */
export const hasTag = (tags: readonly string[], tag: string): boolean =>
  tags.some((other) => other.toLowerCase() === tag.toLowerCase());
