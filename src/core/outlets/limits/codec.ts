import { z } from 'zod';
import { codecName } from '../../master/master';
import { capitalize, listOptions } from './field';
import { joinAlternatives, declareLimit } from './limit';

/** Codecs of the picture by their short names. */
const VIDEO_CODECS = ['avc', 'hevc', 'vp9', 'av1'] as const;
/** Profiles of H.264. */
const PROFILES = ['baseline', 'main', 'high'] as const;

/** Judges a codec. @param profile of H.264; null for other codecs. */
export function judgeCodec(
  { codec, profile }: { codec: string; profile: string | null },
  { video }: { video: { codecs: readonly string[]; profiles: readonly string[] } },
): 'codec' | 'profile' | null {
  if (!video.codecs.includes(codec)) return 'codec';
  return profile !== null && !video.profiles.includes(profile) ? 'profile' : null;
}

/** Limit on the codec of the picture, and on the profile of H.264. */
export const codecLimit = declareLimit({
  name: 'video',
  shape: {
    video: { codecs: z.array(z.enum(VIDEO_CODECS)).min(1), profiles: z.array(z.enum(PROFILES)).min(1) },
  },
  plain: { video: { codecs: ['avc'], profiles: ['baseline', 'main', 'high'] } },
  section: 'File and picture',
  fields: [
    {
      path: 'video.codecs',
      label: 'Video codecs',
      as: { kind: 'some', options: listOptions(VIDEO_CODECS, codecName) },
    },
    {
      path: 'video.profiles',
      label: 'Profiles of H.264',
      as: { kind: 'some', options: listOptions(PROFILES, capitalize) },
    },
  ],
  refuseFile({ video }, placement) {
    const { codecs, profiles } = placement.video;
    const broken = judgeCodec(video, placement);
    if (broken === 'codec')
      return `The picture is ${codecName(video.codec)}, not ${joinAlternatives(codecs.map(codecName))}.`;
    return broken === 'profile'
      ? `The picture is in the ${video.profile} profile of H.264; ${joinAlternatives(profiles)} is taken.`
      : null;
  },
});
