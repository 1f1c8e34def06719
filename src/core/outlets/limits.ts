import { compareRates, framesWithin, type FrameRate, secondsOf } from '../time/frame-rate';
import { characters } from './characters';
import type { Placement } from './placement';
import { isWebAddress } from './web-address';

/*
 * How each limit of a placement is broken, or null where it is kept: one function a limit, for the check before an
 * export and for the outlet after it. What is said of it is theirs.
 */

/** @param frames of the clip, at its rate. A clip exactly at a limit keeps it. */
export function judgeLength(
  { frames, rate }: { frames: number; rate: FrameRate },
  { length: { least, most } }: Pick<Placement, 'length'>,
): 'over' | 'short' | null {
  if (frames > framesWithin(most, rate)) return 'over';
  return least !== null && secondsOf(frames, rate) < least ? 'short' : null;
}

export const judgeRate = (rate: FrameRate, { video }: Pick<Placement, 'video'>): 'over' | null =>
  compareRates(rate, video.mostRate) > 0 ? 'over' : null;

/** @param bytes of the whole file. */
export const judgeFileSize = (bytes: number, { mostBytes }: Pick<Placement, 'mostBytes'>): 'over' | null =>
  bytes > mostBytes ? 'over' : null;

/** @param container by its short name, such as `mp4`. */
export const judgeContainer = (
  container: string,
  { containers }: Pick<Placement, 'containers'>,
): 'other' | null => ((containers as readonly string[]).includes(container) ? null : 'other');

/** @param profile of H.264; null for other codecs. */
export function judgeCodec(
  { codec, profile }: { codec: string; profile: string | null },
  { video }: Pick<Placement, 'video'>,
): 'codec' | 'profile' | null {
  if (!(video.codecs as readonly string[]).includes(codec)) return 'codec';
  return profile !== null && !(video.profiles as readonly string[]).includes(profile) ? 'profile' : null;
}

/** @param level of H.264, times ten; null for other codecs. */
export const judgeLevel = (level: number | null, { video }: Pick<Placement, 'video'>): 'over' | null =>
  level !== null && level > video.mostLevel ? 'over' : null;

/** @param bitrate of the picture, in bits per second. */
export const judgeBitrate = (bitrate: number, { video }: Pick<Placement, 'video'>): 'over' | null =>
  video.mostBits !== null && bitrate > video.mostBits ? 'over' : null;

/** Its bit rate is not held against it: silence takes next to none, whatever was asked for. */
export function judgeSound(
  { codec, sampleRate, channels }: { codec: string; sampleRate: number; channels: number },
  { audio }: Pick<Placement, 'audio'>,
): 'codec' | 'sample-rate' | 'too-few' | 'too-many' | null {
  if (!(audio.codecs as readonly string[]).includes(codec)) return 'codec';
  if (!audio.sampleRates.includes(sampleRate)) return 'sample-rate';
  if (channels < audio.leastChannels) return 'too-few';
  return channels > audio.mostChannels ? 'too-many' : null;
}

/** Spaces around it do not count. */
export function judgeTitle(title: string, { words }: Pick<Placement, 'words'>): 'missing' | 'over' | null {
  const length = characters(title.trim());
  if (length === 0) return 'missing';
  return length > words.title ? 'over' : null;
}

export const judgeDescription = (description: string, { words }: Pick<Placement, 'words'>): 'over' | null =>
  characters(description) > words.description.most ? 'over' : null;

/** @param tags without their marks. */
export const judgeRequiredTag = (
  tags: readonly string[],
  { words: { tags: limits } }: Pick<Placement, 'words'>,
): 'missing' | null => (limits.required !== null && !hasTag(tags, limits.required) ? 'missing' : null);

/** @returns the first tag that is too long, or `too-many`. */
export function judgeTags(
  tags: readonly string[],
  { words: { tags: limits } }: Pick<Placement, 'words'>,
): { tooLong: string } | 'too-many' | null {
  const tooLong = tags.find((tag) => characters(tag) > limits.characters);
  if (tooLong !== undefined) return { tooLong };
  return tags.length > limits.most ? 'too-many' : null;
}

/** @param forChildren what was said; null where nothing was. */
export const judgeChildrenStatement = (
  forChildren: boolean | null,
  { childrenStatement }: Pick<Placement, 'childrenStatement'>,
): 'missing' | null => (childrenStatement && forChildren === null ? 'missing' : null);

/** Spaces around it do not count. */
export function judgeLongVideo(
  address: string,
  { longVideo }: Pick<Placement, 'longVideo'>,
): 'missing' | 'no-address' | null {
  if (longVideo === 'none') return null;
  if (address.trim() === '') return longVideo === 'needed' ? 'missing' : null;
  return isWebAddress(address.trim()) ? null : 'no-address';
}

/** Whether a tag is among others; capitals make no difference. */
export const hasTag = (tags: readonly string[], tag: string): boolean =>
  tags.some((other) => other.toLowerCase() === tag.toLowerCase());
