import type { Borders } from '../picture/borders';
import { compareRates, framesWithin, type FrameRate, rateLabel, secondsOf } from '../time/frame-rate';
import { bytesLabel } from '../figures/figures';
import type { Placement } from './rule-sheet';

/** What an outlet reads from a file that it was sent. */
export interface SentFile {
  /** By its short name, such as `mp4`. */
  container: string;
  width: number;
  height: number;
  rate: FrameRate;
  frames: number;
  bytes: number;
  videoCodec: string;
  audio: { codec: string; sampleRate: number } | null;
  /** Whether every one of its frames could be decoded. */
  decodes: boolean;
  /** Black borders of its decoded picture. */
  borders: Borders;
}

/** The words that were sent with it. */
export interface SentWords {
  title: string;
  description: string;
  tags: string[];
}

/** Why an outlet refuses a file under a placement's rules; nothing when it takes it. */
export function refusals(file: SentFile, words: SentWords, placement: Placement): string[] {
  const { maxSeconds, maxRate, audio, requiredTag } = placement;
  const reasons: string[] = [];
  const refuse = (when: boolean, reason: string) => {
    if (when) reasons.push(reason);
  };
  const containers: readonly string[] = placement.containers;
  refuse(
    !containers.includes(file.container),
    `The file is ${file.container.toUpperCase()}; ${placement.name} takes ${containers.join(' or ').toUpperCase()}.`,
  );
  refuse(!file.decodes, 'The picture cannot be decoded to its end: the file is damaged or was cut off.');
  refuse(
    file.width !== placement.width || file.height !== placement.height,
    `The picture is ${file.width}×${file.height}; ${placement.name} takes ${placement.width}×${placement.height}.`,
  );
  refuse(
    file.frames > framesWithin(maxSeconds, file.rate),
    `The clip lasts ${secondsOf(file.frames, file.rate).toFixed(2)} s; the limit is ${maxSeconds} s.`,
  );
  refuse(
    compareRates(file.rate, maxRate) > 0,
    `The clip runs at ${rateLabel(file.rate)} fps; at most ${rateLabel(maxRate)} fps are taken.`,
  );
  refuse(
    file.bytes > placement.maxBytes,
    `The file has ${bytesLabel(file.bytes)}; the cap is ${bytesLabel(placement.maxBytes)}.`,
  );
  refuse(file.videoCodec !== 'avc', 'The picture is not H.264.');
  refuse(audio.required && !file.audio, 'The clip has no sound.');
  refuse(
    file.audio !== null && (file.audio.codec !== 'aac' || !audio.sampleRates.includes(file.audio.sampleRate)),
    `The sound must be AAC at ${audio.sampleRates.map((rate) => rate / 1000).join(' or ')} kHz.`,
  );
  const { left, top, right, bottom } = file.borders;
  refuse(
    placement.bars === 'refused' && left + top + right + bottom > 0,
    `The picture has black bars: left ${left}, top ${top}, right ${right}, bottom ${bottom} pixels.`,
  );
  const title = [...words.title.trim()].length;
  refuse(title === 0, 'The post has no title.');
  refuse(title > placement.titleCharacters, `The title has over ${placement.titleCharacters} characters.`);
  refuse(
    [...words.description].length > placement.descriptionCharacters,
    `The description has over ${placement.descriptionCharacters} characters.`,
  );
  refuse(
    requiredTag !== undefined && !words.tags.some((tag) => tag.toLowerCase() === requiredTag),
    `The tag #${requiredTag} is missing.`,
  );
  return reasons;
}
