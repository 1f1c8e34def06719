import { z } from 'zod';
import { measureText } from '../../src/core/figures/bounded';
import type { Limits, Programs } from './programs';
import { safeInput } from './media-args';

/** Limits of the program that reads a file's index. */
const LIMITS: Limits = { seconds: 20, memory: 2e9, fileBytes: 0, outputBytes: 64e6 };

const number = measureText();
const streamSchema = z.object({
  codec_type: z.string().optional(),
  codec_name: z.string().optional(),
  profile: z.string().optional(),
  level: number.optional(),
  bit_rate: number.optional(),
  pix_fmt: z.string().optional(),
  field_order: z.string().optional(),
  sample_aspect_ratio: z.string().optional(),
  width: number.optional(),
  height: number.optional(),
  sample_rate: number.optional(),
  channels: number.optional(),
  time_base: z.string().optional(),
  nb_frames: number.optional(),
  side_data_list: z.array(z.object({ rotation: number.optional() })).optional(),
});
const probeSchema = z.object({
  format: z.object({
    format_name: z.string(),
    duration: number.optional(),
    tags: z.record(z.string(), z.string()).optional(),
  }),
  streams: z.array(streamSchema),
});
export type ProbedStream = z.infer<typeof streamSchema>;

/** Facts of a file's index. */
export interface ProbeResult {
  /** `mp4`, `mov`, `webm`, `mkv`, or the reader's own name. */
  container: string;
  /** Seconds, or null where it does not say. */
  seconds: number | null;
  video: ProbedStream | null;
  audio: ProbedStream | null;
}

/** Reads a file's index. @param containers that may be opened. @throws ProgramError */
export async function probeIndex(programs: Programs, file: string, containers: string): Promise<ProbeResult> {
  const args = [
    '-v',
    'error',
    ...safeInput(containers, file),
    '-show_format',
    '-show_streams',
    '-of',
    'json',
  ];
  const { out } = await programs.run('ffprobe', args, { limits: LIMITS });
  const { format, streams } = probeSchema.parse(JSON.parse(out));
  const of = (type: string) => streams.find((stream) => stream.codec_type === type) ?? null;
  return {
    container: toContainer(format.format_name, format.tags?.major_brand),
    seconds: format.duration !== undefined && format.duration > 0 ? format.duration : null,
    video: of('video'),
    audio: of('audio'),
  };
}

/**
 * Names the container: one demuxer reads both MP4 and MOV, another both MKV and WebM; brand and codecs tell
 * them apart.
 */
function toContainer(reader: string, brand: string | undefined): string {
  if (reader.startsWith('mov')) return brand === undefined || brand.startsWith('qt') ? 'mov' : 'mp4';
  return reader.startsWith('matroska') ? 'webm' : reader;
}

/** The pictures of a file as its index lists them: their stamps in seconds. */
export interface StreamEntry {
  stamps: number[];
  /** Pictures that the index names, also those that are never shown. */
  all: number;
  lastSeconds: number;
}

/** Lists every picture of a file that is shown. @throws ProgramError */
export async function listPictures(
  programs: Programs,
  file: string,
  containers: string,
  timeBase: string,
): Promise<StreamEntry> {
  const [num = 1, den = 1] = timeBase.split('/').map(Number);
  const args = [
    ...['-v', 'error', ...safeInput(containers, file), '-select_streams', 'v:0'],
    ...['-show_entries', 'packet=pts,duration,flags', '-of', 'csv=p=0'],
  ];
  const { out } = await programs.run('ffprobe', args, { limits: LIMITS });
  const stamps: number[] = [];
  let all = 0;
  let lastSeconds = 0;
  for (const line of out.split('\n')) {
    const [pts, duration, flags = ''] = line.split(',');
    if (line.trim() !== '') all += 1;
    // What the edit list cuts away is marked as discarded.
    if (!pts || pts === 'N/A' || flags.includes('D')) continue;
    stamps.push((Number(pts) * num) / den);
    lastSeconds = (Number(duration) * num) / den || 0;
  }
  return { stamps, all, lastSeconds };
}
