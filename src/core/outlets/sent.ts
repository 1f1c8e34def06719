import type { Borders } from '../picture/borders';
import type { Size } from '../picture/size';
import type { FrameRate } from '../time/frame-rate';
import type { Audience } from './audience';

/** A file that an outlet was sent, as it measures it. */
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
  /** Every one of its frames could be decoded. */
  decodes: boolean;
  /** Black borders of its decoded picture. */
  borders: Borders;
}

/** Words and choices that were sent with it. */
export interface SentPost {
  title: string;
  description: string;
  /** Without their marks. */
  tags: readonly string[];
  audience: Audience;
  /** It is made for children; null where nothing was said. */
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
