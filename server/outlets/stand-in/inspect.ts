import { stat } from 'node:fs/promises';
import type { SentFile } from '../../../src/core/outlets/sent';
import { type Borders, NO_BORDERS } from '../../../src/core/picture/borders';
import type { Size } from '../../../src/core/picture/size';
import { detectRate } from '../../../src/core/time/detect-rate';
import { OUTLET_CONTAINERS, safeInput, STILL_CONTAINERS } from '../../programs/media-args';
import { hasWholeBoxes } from '../../programs/boxes';
import { listPictures, type ProbedStream, probeIndex } from '../../programs/probe';
import { ProgramError, type Programs } from '../../programs/programs';

/** Most frames that a post may have: two hours at 60 frames a second. */
const MAX_FRAMES = 120 * 60 * 60;
/** Decoding a clip to its end takes this long at most, in seconds. */
const MAX_SECONDS = 600;
/** Address space of that, in bytes. */
const MEMORY = 3e9;

/** Names of codecs here, by ffmpeg's. */
const CODECS: Record<string, string> = { h264: 'avc', hevc: 'hevc', vp8: 'vp8', vp9: 'vp9', av1: 'av1' };

/**
 * Reads a sent file and decodes it to its end.
 * @returns null when it is no film in a container that outlets take.
 * @throws ProgramError when that could not be found out: no ffmpeg, too busy, the server is ending.
 */
export async function inspectFile(programs: Programs, file: string): Promise<SentFile | null> {
  const read = await readable(probeIndex(programs, file, OUTLET_CONTAINERS));
  const video = read?.video;
  if (!read || !video?.time_base || !(video.width && video.height)) return null;
  const listed = await readable(listPictures(programs, file, OUTLET_CONTAINERS, video.time_base));
  if (!listed || listed.stamps.length === 0 || listed.stamps.length > MAX_FRAMES) return null;
  const counted = video.nb_frames === undefined || video.nb_frames === listed.all;
  const whole = counted && (read.container === 'webm' || (await hasWholeBoxes(file)));
  const { rate, frames } = detectRate(listed.stamps, listed.lastSeconds);
  const size = uprightSize(video);
  const decoded = await readable(decode(programs, file, size));
  const bytes = (await stat(file)).size;
  return {
    ...size,
    rate,
    frames,
    container: read.container,
    bytes,
    video: toVideoFacts(video, bytes, listed.lastSeconds),
    audio: read.audio && toAudioFacts(read.audio),
    decodes: whole && decoded !== null && decoded.frames >= listed.stamps.length && !decoded.faults,
    borders: decoded?.borders ?? NO_BORDERS,
  };
}

/** The size of a JPEG; null for what is none. @throws ProgramError when that could not be found out. */
export async function pictureSize(programs: Programs, file: string): Promise<Size | null> {
  const video = (await readable(probeIndex(programs, file, STILL_CONTAINERS)))?.video;
  return video?.codec_name === 'mjpeg' && video.width && video.height ? uprightSize(video) : null;
}

/** Profiles of H.264 as rule sheets name them. */
const PROFILES: Record<string, string> = {
  'Constrained Baseline': 'baseline',
  Baseline: 'baseline',
  Main: 'main',
  High: 'high',
};

function toVideoFacts(video: ProbedStream, bytes: number, seconds: number): SentFile['video'] {
  const codec = CODECS[video.codec_name ?? ''] ?? video.codec_name ?? 'unknown';
  const avc = codec === 'avc';
  const order = video.field_order ?? 'progressive';
  const [across = 1, down = 1] = (video.sample_aspect_ratio ?? '1:1').split(':').map(Number);
  return {
    codec,
    profile: avc ? (PROFILES[video.profile ?? ''] ?? video.profile?.toLowerCase() ?? null) : null,
    level: avc ? (video.level ?? null) : null,
    // A container that does not say holds little else.
    bits: video.bit_rate ?? (bytes * 8) / Math.max(seconds, 1),
    interlaced: !['progressive', 'unknown'].includes(order),
    oblongPixels: across !== down && across > 0,
  };
}

const toAudioFacts = (audio: ProbedStream): NonNullable<SentFile['audio']> => ({
  codec: audio.codec_name ?? 'unknown',
  sampleRate: audio.sample_rate ?? 0,
  channels: audio.channels ?? 0,
});

/**
 * Awaits a reading of a file; null when the file is at fault. Any other error is thrown on.
 */
async function readable<T>(reading: Promise<T>): Promise<T | null> {
  try {
    return await reading;
  } catch (error) {
    const fault = error instanceof ProgramError && ['failed', 'slow', 'talkative'].includes(error.reason);
    if (fault || error instanceof SyntaxError) return null;
    throw error;
  }
}

/** Decodes picture and sound to their end, searching every frame for black borders. */
async function decode(
  programs: Programs,
  file: string,
  size: Size,
): Promise<{ frames: number; faults: boolean; borders: Borders | null }> {
  let frames = 0;
  let rest = '';
  const found: Partial<Record<string, number>> = {};
  const onOut = (text: string) => {
    const lines = (rest + text).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) {
      if (line.startsWith('frame:')) frames += 1;
      const [, key, value] = /^lavfi\.cropdetect\.(w|h|x|y)=(-?\d+)/.exec(line) ?? [];
      if (key) found[key] = Number(value);
    }
  };
  const search = 'cropdetect=limit=24:round=2:skip=0:reset=0,metadata=print:file=-';
  const args = [
    ...['-hide_banner', '-v', 'error', '-nostdin', ...safeInput(OUTLET_CONTAINERS, file)],
    ...['-map', '0:v:0', '-map', '0:a:0?', '-vf', search, '-fps_mode', 'passthrough', '-f', 'null', '-'],
  ];
  const limits = { seconds: MAX_SECONDS, memory: MEMORY, fileBytes: 0, outputBytes: Infinity };
  const { errors } = await programs.run('ffmpeg', args, { limits, onOut });
  const { w = 0, h = 0, x = 0, y = 0 } = found;
  // A clip that is black throughout tells nothing of borders.
  const borders =
    w > 0 && h > 0 ? { left: x, top: y, right: size.width - x - w, bottom: size.height - y - h } : null;
  return { frames, faults: errors.trim() !== '', borders };
}

/** A stream's size as it is shown: with square pixels, and turned as the file says. */
function uprightSize({
  width = 0,
  height = 0,
  sample_aspect_ratio: aspect,
  side_data_list: more,
}: ProbedStream): Size {
  const [across = 1, down = 1] = (aspect ?? '1:1').split(':').map(Number);
  const square = across > 0 && down > 0 ? Math.round((width * across) / down) : width;
  const turned = more?.some(({ rotation = 0 }) => Math.abs(rotation) % 180 === 90);
  return turned ? { width: height, height: square } : { width: square, height };
}
