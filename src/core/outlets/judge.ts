import { bitsLabel, bytesLabel } from '../figures/figures';
import { codecName } from '../master/master';
import type { Borders } from '../picture/borders';
import type { Size } from '../picture/size';
import { type FrameRate, rateLabel, secondsOf } from '../time/frame-rate';
import type { Audience } from './audience';
import {
  judgeBitrate,
  judgeChildrenStatement,
  judgeCodec,
  judgeContainer,
  judgeDescription,
  judgeFileSize,
  judgeLength,
  judgeLevel,
  judgeLongVideo,
  judgeRate,
  judgeRequiredTag,
  judgeSound,
  judgeTags,
  judgeTitle,
} from './limits';
import type { Placement } from './placement';
import { sizesLabel, takesSize } from './taken-sizes';

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
  return {
    container: (placement) =>
      judgeContainer(container, placement) &&
      `The file is ${container.toUpperCase()}; ${placement.name} takes ${anyOf(placement.containers).toUpperCase()}.`,
    damaged: () =>
      file.decodes ? null : 'The picture cannot be decoded to its end: the file is damaged or was cut off.',
    size: ({ name, sizes }) =>
      takesSize(sizes, file)
        ? null
        : `The picture is ${sizeLabel(file)}; ${name} takes ${sizesLabel(sizes)}.`,
    length: (placement) => {
      const { least, most } = placement.length;
      const broken = judgeLength(file, placement);
      const lasts = `The clip lasts ${secondsOf(frames, rate).toFixed(2)} s`;
      return (
        broken &&
        `${lasts}; ${broken === 'over' ? `the limit is ${most} s` : `it must last ${least} s at least`}.`
      );
    },
    rate: (placement) =>
      judgeRate(rate, placement) &&
      `The clip runs at ${rateLabel(rate)} fps; at most ${rateLabel(placement.video.mostRate)} fps are taken.`,
    'file-size': (placement) =>
      judgeFileSize(bytes, placement) &&
      `The file has ${bytesLabel(bytes)}; the cap is ${bytesLabel(placement.mostBytes)}.`,
    video: (placement) => {
      const { codecs, profiles } = placement.video;
      const broken = judgeCodec(video, placement);
      if (broken === 'codec')
        return `The picture is ${codecName(video.codec)}, not ${anyOf(codecs.map(codecName))}.`;
      return broken === 'profile'
        ? `The picture is in the ${video.profile} profile of H.264; ${anyOf(profiles)} is taken.`
        : null;
    },
    level: (placement) =>
      judgeLevel(video.level, placement) &&
      `The picture needs level ${levelName(video.level ?? 0)} of H.264; at most ${levelName(placement.video.mostLevel)} is taken.`,
    'bit-rate': (placement) =>
      judgeBitrate(video.bits, placement) &&
      `The picture has ${bitsLabel(video.bits)}; at most ${bitsLabel(placement.video.mostBits ?? 0)} are taken.`,
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
      const broken = judgeSound(sound, { audio });
      if (broken === 'codec' || broken === 'sample-rate') {
        const rates = anyOf(audio.sampleRates.map((rate) => String(rate / 1000)));
        return `The sound must be ${anyOf(audio.codecs.map(codecName))} at ${rates} kHz.`;
      }
      if (broken === 'too-few')
        return `The sound is mono; at least ${audio.leastChannels} channels are taken.`;
      return broken === 'too-many'
        ? `The sound has ${sound.channels} channels; at most ${audio.mostChannels} are taken.`
        : null;
    },
  };
}

function ofPost(post: SentPost): Partial<Record<Limit, Test>> {
  return {
    title: (placement) => {
      const broken = judgeTitle(post.title, placement);
      if (broken === 'missing') return 'The post has no title.';
      return broken && `The title has over ${placement.words.title} characters.`;
    },
    description: (placement) =>
      judgeDescription(post.description, placement) &&
      `The description has over ${placement.words.description.most} characters.`,
    tags: (placement) => {
      const { tags } = placement.words;
      if (judgeRequiredTag(post.tags, placement)) return `The tag #${tags.required} is missing.`;
      const broken = judgeTags(post.tags, placement);
      if (broken === 'too-many') return `There are ${post.tags.length} tags; at most ${tags.most} are taken.`;
      return broken && `The tag #${broken.tooLong} has over ${tags.characters} characters.`;
    },
    audience: ({ audiences }) =>
      audiences.includes(post.audience) ? null : `A post cannot be ${post.audience} here.`,
    children: (placement) =>
      judgeChildrenStatement(post.forChildren, placement) &&
      'The post does not say whether the clip is made for children.',
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
    'long-video': (placement) => {
      const broken = judgeLongVideo(post.longVideo ?? '', placement);
      if (broken === 'missing') return 'The link to the long video is missing.';
      return broken && 'The link to the long video is not a web address.';
    },
  };
}
