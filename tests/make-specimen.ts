import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, truncateSync, writeFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from './encode-film';

/** Makes the files of the zoo with ffmpeg, and harms some of them. */

const folder = mkdtempSync(path.join(tmpdir(), 'zoo-'));
export const H264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p'];
export const AAC = ['-c:a', 'aac', '-b:a', '96k'];
export const TAGS = [
  '-colorspace',
  'bt709',
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-color_range',
  'tv',
];

interface Making {
  ext?: string;
  size?: string;
  rate?: string;
  seconds?: number;
  filter?: string;
  sound?: string | null;
  output?: string[];
  before?: string[];
}

export function make(
  name: string,
  {
    ext = 'mp4',
    size = '320x180',
    rate = '25',
    seconds = 1,
    filter,
    sound = 'stereo',
    output,
    before = [],
  }: Making = {},
): string {
  const file = path.join(folder, `${name}.${ext}`);
  const tone = `sine=f=440:r=48000:d=${seconds},aformat=channel_layouts=${sound}`;
  const args = [...before, '-f', 'lavfi', '-i', `testsrc2=s=${size}:r=${rate}:d=${seconds}`];
  if (sound) args.push('-f', 'lavfi', '-i', tone);
  if (filter) args.push('-vf', filter);
  return encodeFilm(file, [...args, ...(output ?? h264With())]);
}

/** The same file in another wrapping, without coding it again. */
export function rewrap(
  from: string,
  name: string,
  ext: string,
  args: string[],
  before: string[] = [],
): string {
  const file = path.join(folder, `${name}.${ext}`);
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    ...before,
    '-i',
    from,
    '-map',
    '0',
    '-c',
    'copy',
    ...args,
    file,
  ]);
  return file;
}

/** Writes a display matrix into an MP4's picture track (ISO/IEC 14496-12, 8.3.2). */
export function withMatrix(
  from: string,
  name: string,
  [a, b, c, d]: [number, number, number, number],
): string {
  const file = path.join(folder, `${name}.mp4`);
  const bytes = readFileSync(from);
  const offset = bytes.indexOf('tkhd') + 4 + 40;
  const fixed = (value: number) => Math.round(value * 65536);
  [fixed(a), fixed(b), 0, fixed(c), fixed(d), 0, 0, 0, 1 << 30].forEach((value, i) =>
    bytes.writeInt32BE(value, offset + i * 4),
  );
  writeFileSync(file, bytes);
  return file;
}

export function cutOff(from: string, name: string, share: number): string {
  const file = path.join(folder, `${name}.mp4`);
  writeFileSync(file, readFileSync(from));
  truncateSync(file, Math.floor(statSync(file).size * share));
  return file;
}

export function scribbled(from: string, name: string): string {
  const file = path.join(folder, `${name}.mp4`);
  const bytes = readFileSync(from);
  const data = bytes.indexOf('mdat') + 8;
  for (let i = data; i < bytes.length; i++) bytes[i] = (i * 2654435761) & 255;
  writeFileSync(file, bytes);
  return file;
}

export function plain(name: string, text: string): string {
  const file = path.join(folder, name);
  writeFileSync(file, text);
  return file;
}

/** H.264 with AAC and the usual tags, and more options. */
export const h264With = (more: string[] = []): string[] => [...H264, ...TAGS, ...AAC, ...more];
export const encoded = (codec: string, more: string[] = []): string[] => [
  '-c:v',
  codec,
  ...more,
  ...TAGS,
  ...AAC,
];
export const webm = (codec: string, more: string[] = []): string[] => [
  '-c:v',
  codec,
  '-b:v',
  '300k',
  '-deadline',
  'realtime',
  '-cpu-used',
  '8',
  ...more,
  '-c:a',
  'libopus',
];
