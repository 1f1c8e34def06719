import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { encodeFilm } from './encode-film';

const folder = mkdtempSync(path.join(tmpdir(), 'clips-'));

/** A clip to make with ffmpeg. */
export interface ClipOptions {
  size?: string;
  rate?: string;
  seconds?: number;
  /** A filter chain put after the moving test picture. */
  filter?: string;
  /** Sound: a tone in so many channels, or none. */
  channels?: number;
  /** Pixel format. */
  pixels?: string;
  sampleRate?: number;
  /** A tone that climbs, for finding a place in the sound. */
  sweep?: boolean;
  /** More output options, for instance another codec. */
  output?: string[];
}

/** Makes a small real file and gives its path. The picture moves; the sound is a tone. */
export function makeClip(name: string, options: ClipOptions = {}): string {
  const {
    size = '320x180',
    rate = '24000/1001',
    seconds = 2,
    filter = 'null',
    pixels = 'yuv420p',
    channels = 2,
    sampleRate = 48000,
  } = options;
  const file = path.join(folder, name);
  const climb = options.sweep ? '+400*t*t' : '';
  const tone = Array.from({ length: channels }, (_, i) => `0.2*sin(2*PI*(${300 + 60 * i}*t${climb}))`).join(
    '|',
  );
  const sound = ['-f', 'lavfi', '-i', `aevalsrc='${tone}':s=${sampleRate}:d=${seconds}`];
  return encodeFilm(file, [
    ...['-f', 'lavfi', '-i', `testsrc2=s=${size}:r=${rate}:d=${seconds}`],
    ...(channels > 0 ? sound : []),
    ...[
      '-vf',
      `${filter},format=${pixels}`,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-g',
      '24',
      '-bf',
      '2',
    ],
    ...['-colorspace', 'bt709', '-color_range', 'tv'],
    ...(channels > 0 ? ['-c:a', 'aac', '-b:a', '128k'] : []),
    ...(options.output ?? []),
  ]);
}

/** Reads what ffprobe says of a file's streams. */
export function probe(file: string): Record<string, string | number | undefined>[] {
  const text = execFileSync('ffprobe', ['-v', 'error', '-show_streams', '-of', 'json', file]).toString();
  return (JSON.parse(text) as { streams: Record<string, string | number | undefined>[] }).streams;
}

/** The packets of a file's picture, as ffprobe reads them, by their times: seconds and bytes. */
export function packetsOf(file: string): { time: number; bytes: number; key: boolean }[] {
  const fields = ['-select_streams', 'v', '-show_entries', 'packet=pts_time,size,flags', '-of', 'csv=p=0'];
  const text = execFileSync('ffprobe', ['-v', 'error', ...fields, file]).toString();
  return text
    .trim()
    .split('\n')
    .map((line) => line.split(','))
    .map(([time, bytes, flags]) => ({
      time: Number(time),
      bytes: Number(bytes),
      key: flags?.startsWith('K') ?? false,
    }))
    .sort((a, b) => a.time - b.time);
}

/** Bytes of every frame and every packet of sound of a file, by ffprobe. */
export function packetBytes(file: string): number[] {
  const fields = ['-show_entries', 'packet=size', '-of', 'csv=p=0'];
  const text = execFileSync('ffprobe', ['-v', 'error', ...fields, file]).toString();
  // What lies beside a packet makes a line of its own.
  return [...text.matchAll(/^\d+/gm)].map(([bytes]) => Number(bytes));
}

/** The rectangle that ffmpeg's cropdetect leaves, as `width:height:x:y`. */
export function cropDetect(file: string): string | undefined {
  const args = [
    '-hide_banner',
    '-i',
    file,
    '-an',
    '-vf',
    'cropdetect=limit=24:round=2:skip=0',
    '-f',
    'null',
    '-',
  ];
  const { stderr } = spawnSync('ffmpeg', args, { encoding: 'utf8', maxBuffer: 1 << 28 });
  return [...stderr.matchAll(/crop=([\d:]+)/g)].pop()?.[1];
}

/** Sets the rotation of an MP4's picture to 90° clockwise, in its track header (ISO/IEC 14496-12, 8.3.2: the matrix). */
export function turnClip(file: string): string {
  const bytes = readFileSync(file);
  const fixed = (value: number) => Math.round(value * 65536);
  const offset = bytes.indexOf('tkhd') + 4 + 40;
  // a b u, c d v, x y w: x' = −y, y' = x.
  const matrix = [0, fixed(1), 0, fixed(-1), 0, 0, 0, 0, 1 << 30];
  matrix.forEach((value, i) => bytes.writeInt32BE(value, offset + i * 4));
  writeFileSync(file, bytes);
  return file;
}
