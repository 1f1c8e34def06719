/** A kind of file that exports are made as. */
export interface Format {
  /** Name of the format. */
  name: string;
  /** Purpose of the format, in a few words. */
  use: string;
  container: 'mp4' | 'mov' | 'webm';
  /** Null for sound alone. */
  video: 'avc' | 'vp9' | 'av1' | null;
  audio: 'aac' | 'opus' | 'flac';
  /** True when nothing of what was drawn is lost: a bitrate has then no effect. */
  lossless?: boolean;
  /** Of file names, and the media type (IANA media types; RFC 4337, RFC 6381). */
  extension: string;
  type: string;
}

/** Formats that exports are made as, the best known first. */
export const FORMATS = {
  'mp4-avc': {
    name: 'MP4, H.264 and AAC',
    use: 'every outlet takes it',
    container: 'mp4',
    video: 'avc',
    audio: 'aac',
    extension: 'mp4',
    type: 'video/mp4',
  },
  'mov-avc': {
    name: 'MOV, H.264 and AAC',
    use: 'for those who go on editing',
    container: 'mov',
    video: 'avc',
    audio: 'aac',
    extension: 'mov',
    type: 'video/quicktime',
  },
  'mp4-vp9': {
    name: 'MP4, VP9 and Opus',
    use: 'smaller, where the outlet takes it',
    container: 'mp4',
    video: 'vp9',
    audio: 'opus',
    extension: 'mp4',
    type: 'video/mp4',
  },
  'mp4-av1': {
    name: 'MP4, AV1 and Opus',
    use: 'smallest, slow to make',
    container: 'mp4',
    video: 'av1',
    audio: 'opus',
    extension: 'mp4',
    type: 'video/mp4',
  },
  'webm-vp9': {
    name: 'WebM, VP9 and Opus',
    use: 'smaller, where the outlet takes it',
    container: 'webm',
    video: 'vp9',
    audio: 'opus',
    extension: 'webm',
    type: 'video/webm',
  },
  'webm-av1': {
    name: 'WebM, AV1 and Opus',
    use: 'smallest, slow to make',
    container: 'webm',
    video: 'av1',
    audio: 'opus',
    extension: 'webm',
    type: 'video/webm',
  },
  lossless: {
    name: 'MP4, lossless H.264 and FLAC',
    use: 'for the archive: every frame as it was drawn',
    container: 'mp4',
    video: 'avc',
    audio: 'flac',
    lossless: true,
    extension: 'mp4',
    type: 'video/mp4',
  },
  sound: {
    name: 'Sound alone, AAC',
    use: 'the clip’s sound without its picture',
    container: 'mp4',
    video: null,
    audio: 'aac',
    extension: 'm4a',
    type: 'audio/mp4',
  },
} as const satisfies Record<string, Format>;

export type FormatId = keyof typeof FORMATS;
export const FORMAT_IDS = Object.keys(FORMATS) as [FormatId, ...FormatId[]];

/** Formats that a placement takes. */
export interface TakenFiles {
  containers: readonly string[];
  video: { codecs: readonly string[] };
  audio: { codecs: readonly string[] };
}

/** Tells whether a placement takes files of a format. */
export const isFormatTaken = ({ containers, video, audio }: TakenFiles, id: FormatId): boolean => {
  const format: Format = FORMATS[id];
  return (
    format.video !== null &&
    containers.includes(format.container) &&
    video.codecs.includes(format.video) &&
    audio.codecs.includes(format.audio)
  );
};

/** The format that an export takes where the person chose none: the first that the placement takes, or else our first. */
export const chooseFormat = (taken: TakenFiles): FormatId =>
  FORMAT_IDS.find((id) => isFormatTaken(taken, id)) ?? FORMAT_IDS[0];
