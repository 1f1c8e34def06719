import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, truncateSync, writeFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** One small file of a kind that comes in from the wild. */
export interface Specimen {
  name: string;
  file: string;
  /** In a few words, for the table. */
  how: string;
  /** Facts that the app must show, beside those of ffprobe. */
  facts?: Record<string, string | RegExp>;
  /** Words of the refusal; without it the file must come in. */
  refused?: RegExp;
  /** Whether the shown size differs from the stored one: turned, or of pixels that are not square. */
  sizeIsOwn?: boolean;
}

const folder = mkdtempSync(path.join(tmpdir(), 'zoo-'));
const H264 = ['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p'];
const AAC = ['-c:a', 'aac', '-b:a', '96k'];
const TAGS = [
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

function make(
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
  const args = [
    '-y',
    '-v',
    'error',
    ...before,
    '-f',
    'lavfi',
    '-i',
    `testsrc2=s=${size}:r=${rate}:d=${seconds}`,
  ];
  if (sound) args.push('-f', 'lavfi', '-i', tone);
  if (filter) args.push('-vf', filter);
  args.push(...(output ?? [...H264, ...TAGS, ...AAC]), file);
  execFileSync('ffmpeg', args);
  return file;
}

/** The same file in another wrapping, without coding it again. */
function rewrap(from: string, name: string, ext: string, args: string[], before: string[] = []): string {
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
function withMatrix(from: string, name: string, [a, b, c, d]: [number, number, number, number]): string {
  const file = path.join(folder, `${name}.mp4`);
  const bytes = readFileSync(from);
  const at = bytes.indexOf('tkhd') + 4 + 40;
  const fixed = (value: number) => Math.round(value * 65536);
  [fixed(a), fixed(b), 0, fixed(c), fixed(d), 0, 0, 0, 1 << 30].forEach((value, i) =>
    bytes.writeInt32BE(value, at + i * 4),
  );
  writeFileSync(file, bytes);
  return file;
}

function cutOff(from: string, name: string, share: number): string {
  const file = path.join(folder, `${name}.mp4`);
  writeFileSync(file, readFileSync(from));
  truncateSync(file, Math.floor(statSync(file).size * share));
  return file;
}

function scribbled(from: string, name: string): string {
  const file = path.join(folder, `${name}.mp4`);
  const bytes = readFileSync(from);
  const data = bytes.indexOf('mdat') + 8;
  for (let i = data; i < bytes.length; i++) bytes[i] = (i * 2654435761) & 255;
  writeFileSync(file, bytes);
  return file;
}

function plain(name: string, text: string): string {
  const file = path.join(folder, name);
  writeFileSync(file, text);
  return file;
}

const encoded = (codec: string, more: string[] = []): string[] => ['-c:v', codec, ...more, ...TAGS, ...AAC];
const webm = (codec: string, more: string[] = []): string[] => [
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

/** Makes every specimen. */
export function makeZoo(): Specimen[] {
  const base = make('base');
  const fast = make('faststart', {
    seconds: 4,
    output: [...H264, ...TAGS, ...AAC, '-movflags', '+faststart'],
  });
  const h264 = (profile = 'High') => ({ Picture: `H.264 ${profile}` });
  const interlaced = (order: 'top' | 'bottom') =>
    make(`interlaced-${order}`, {
      rate: '50',
      seconds: 2,
      filter: `tinterlace=interleave_${order}`,
      output: [
        ...H264,
        ...TAGS,
        ...AAC,
        '-flags',
        '+ilme+ildct',
        '-x264opts',
        order === 'top' ? 'tff=1' : 'bff=1',
      ],
    });
  const come: Specimen[] = [
    {
      name: 'mp4',
      file: base,
      how: 'H.264 and AAC in MP4',
      facts: {
        ...h264(),
        'Frame rate': '25 fps',
        'Bit depth': '8 bits',
        Fields: 'none',
        Levels: 'limited',
        Colour: /BT\.709/,
      },
    },
    {
      name: 'mov',
      file: make('mov', { ext: 'mov' }),
      how: 'the same in MOV',
      facts: { ...h264(), File: /QuickTime|MOV/ },
    },
    {
      name: 'm4v',
      file: rewrap(base, 'm4v', 'm4v', ['-f', 'mp4']),
      how: 'MP4 under another name',
      facts: h264(),
    },
    {
      name: 'mkv',
      file: make('mkv', { ext: 'mkv' }),
      how: 'H.264 and AAC in Matroska',
      facts: { ...h264(), File: /Matroska/ },
    },
    { name: 'ts', file: rewrap(base, 'ts', 'ts', []), how: 'MPEG transport stream', facts: h264() },
    {
      name: 'fragmented',
      file: rewrap(base, 'fragmented', 'mp4', ['-movflags', 'frag_keyframe+empty_moov']),
      how: 'fragmented MP4',
      facts: h264(),
    },
    {
      name: 'webm-vp9',
      file: make('vp9', { ext: 'webm', output: webm('libvpx-vp9') }),
      how: 'VP9 and Opus in WebM',
      facts: { Picture: 'VP9', Sound: /Opus/ },
    },
    {
      name: 'webm-vp8',
      file: make('vp8', { ext: 'webm', output: webm('libvpx') }),
      how: 'VP8 and Opus in WebM',
      facts: { Picture: 'VP8' },
    },
    {
      name: 'mkv-vp9',
      file: make('mkv-vp9', { ext: 'mkv', output: webm('libvpx-vp9') }),
      how: 'VP9 in Matroska',
      facts: { Picture: 'VP9' },
    },
    {
      name: 'av1',
      file: make('av1', {
        seconds: 0.4,
        output: encoded('libaom-av1', ['-cpu-used', '8', '-pix_fmt', 'yuv420p']),
      }),
      how: 'AV1 in MP4',
      facts: { Picture: 'AV1' },
    },
    {
      name: 'turned-90',
      file: withMatrix(base, 'turned-90', [0, 1, -1, 0]),
      how: 'rotation flag 90°',
      sizeIsOwn: true,
      facts: { Size: '180×320', Turned: /90°/ },
    },
    {
      name: 'turned-180',
      file: withMatrix(base, 'turned-180', [-1, 0, 0, -1]),
      how: 'rotation flag 180°',
      facts: { Turned: /180°/ },
    },
    {
      name: 'turned-270',
      file: withMatrix(base, 'turned-270', [0, -1, 1, 0]),
      how: 'rotation flag 270°',
      sizeIsOwn: true,
      facts: { Size: '180×320', Turned: /270°/ },
    },
    {
      name: 'mirrored',
      file: withMatrix(base, 'mirrored', [-1, 0, 0, 1]),
      how: 'mirrored by its matrix',
      facts: { Turned: /mirrored/ },
    },
    {
      name: 'pixels-10-11',
      file: make('par1011', { size: '720x480', filter: 'setsar=10/11' }),
      how: 'tape pixels, 10:11',
      sizeIsOwn: true,
      facts: { Size: '720×528', 'Pixel aspect': '10:11' },
    },
    {
      name: 'pixels-16-11',
      file: make('par1611', { size: '720x576', filter: 'setsar=16/11' }),
      how: 'tape pixels, 16:11',
      sizeIsOwn: true,
      facts: { Size: '1047×576', 'Pixel aspect': '16:11' },
    },
    {
      name: 'half-lines',
      file: make('half', { size: '640x240', filter: 'setsar=1/2' }),
      how: 'half the lines, 1:2',
      sizeIsOwn: true,
      facts: { Size: '640×480', 'Pixel aspect': '1:2' },
    },
    {
      name: '10-bit-h264',
      file: make('h264-10', {
        output: ['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv420p10le', ...TAGS, ...AAC],
      }),
      how: 'H.264 High 10',
      facts: { ...h264('High 10'), 'Bit depth': '10 bits' },
    },
    {
      name: '10-bit-vp9',
      file: make('vp9-10', {
        ext: 'webm',
        output: webm('libvpx-vp9', ['-pix_fmt', 'yuv420p10le', '-profile:v', '2']),
      }),
      how: 'VP9 profile 2',
      facts: { 'Bit depth': '10 bits' },
    },
    {
      name: 'full-range',
      file: make('full', {
        filter: 'scale=out_range=full,format=yuv420p',
        output: [
          ...H264,
          ...AAC,
          '-color_range',
          'pc',
          '-colorspace',
          'bt709',
          '-color_primaries',
          'bt709',
          '-color_trc',
          'bt709',
        ],
      }),
      how: 'full range',
      facts: { Levels: 'full' },
    },
    {
      name: 'bt601',
      file: make('bt601', {
        output: [
          ...H264,
          ...AAC,
          '-colorspace',
          'smpte170m',
          '-color_primaries',
          'smpte170m',
          '-color_trc',
          'smpte170m',
          '-color_range',
          'tv',
        ],
      }),
      how: 'BT.601',
      facts: { Colour: /BT\.601/ },
    },
    {
      name: 'untagged',
      file: make('untagged', { output: [...H264, ...AAC] }),
      how: 'no colour tags',
      facts: { Colour: /not told/ },
    },
    {
      name: '422',
      file: make('h264-422', {
        output: ['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv422p', ...TAGS, ...AAC],
      }),
      how: 'H.264 4:2:2',
      facts: h264('High 4:2:2'),
    },
    {
      name: '444',
      file: make('h264-444', {
        output: ['-c:v', 'libx264', '-preset', 'veryfast', '-pix_fmt', 'yuv444p', ...TAGS, ...AAC],
      }),
      how: 'H.264 4:4:4',
      facts: h264('High 4:4:4'),
    },
    {
      name: 'no-b-frames',
      file: make('nob', { output: [...H264, '-bf', '0', ...TAGS, ...AAC] }),
      how: 'no B-frames',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'many-b-frames',
      file: make('manyb', { output: [...H264, '-bf', '8', '-b_strategy', '0', ...TAGS, ...AAC] }),
      how: 'eight B-frames in a row',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'long-gop',
      file: make('longgop', { seconds: 4, output: [...H264, '-g', '999', ...TAGS, ...AAC] }),
      how: 'one key frame',
      facts: { Length: '00:00:04:00' },
    },
    {
      name: 'all-key',
      file: make('intra', { output: [...H264, '-g', '1', ...TAGS, ...AAC] }),
      how: 'key frames only',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'edit-list',
      file: rewrap(
        make('edits', { seconds: 3, output: [...H264, '-g', '25', ...TAGS, ...AAC] }),
        'edit-list',
        'mp4',
        [],
        ['-ss', '0.6'],
      ),
      how: 'starts inside a group, by an edit list',
      facts: { 'Frame rate': '25 fps' },
    },
    {
      name: 'late-start',
      file: rewrap(base, 'late', 'mkv', ['-output_ts_offset', '1.4']),
      how: 'stamps start at 1.4 s',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'negative-start',
      file: rewrap(base, 'negative', 'mp4', ['-output_ts_offset', '-0.2', '-avoid_negative_ts', 'disabled']),
      how: 'stamps start below zero',
      facts: { 'Frame rate': '25 fps' },
    },
    {
      name: 'varying-rate',
      file: make('vfr', {
        ext: 'mkv',
        rate: '30',
        seconds: 3,
        filter: "select='not(eq(mod(n,7),3))+lt(n,20)',setpts=PTS",
        output: [...H264, '-fps_mode', 'vfr', ...TAGS, ...AAC],
      }),
      how: 'frames left out at random',
      facts: { 'Frame rate': /varies/, 'Frame time': /ms/ },
    },
    {
      name: 'odd-size',
      file: make('odd', { ext: 'webm', filter: 'scale=321:181,setsar=1,format=yuv420p', output: webm('libvpx-vp9') }),
      how: '321×181',
      facts: { Size: '321×181' },
    },
    {
      name: 'interlaced-top',
      file: interlaced('top'),
      how: 'two fields, top first',
      facts: { Fields: /may hold fields/ },
    },
    {
      name: 'interlaced-bottom',
      file: interlaced('bottom'),
      how: 'two fields, bottom first',
      facts: { Fields: /may hold fields/ },
    },
    { name: 'mono', file: make('mono', { sound: 'mono' }), how: 'mono', facts: { Sound: /AAC 48 kHz mono/ } },
    { name: '5-1', file: make('surround', { sound: '5.1' }), how: '5.1 channels' },
    {
      name: 'silent',
      file: make('silent', { sound: null, output: [...H264, ...TAGS] }),
      how: 'no sound',
      facts: { Sound: 'none' },
    },
    {
      name: '44-1',
      file: make('44100', { output: [...H264, ...TAGS, ...AAC, '-ar', '44100'] }),
      how: '44.1 kHz',
    },
    {
      name: 'pcm',
      file: make('pcm', { ext: 'mov', output: [...H264, ...TAGS, '-c:a', 'pcm_s16le'] }),
      how: 'PCM in MOV',
      facts: { Sound: /PCM/ },
    },
    {
      name: 'mp3',
      file: make('mp3', { output: [...H264, ...TAGS, '-c:a', 'libmp3lame'] }),
      how: 'MP3 in MP4',
      facts: { Sound: /MP3/ },
    },
    {
      name: 'flac',
      file: make('flac', { ext: 'mkv', output: [...H264, ...TAGS, '-c:a', 'flac'] }),
      how: 'FLAC in Matroska',
      facts: { Sound: /FLAC/ },
    },
    {
      name: 'two-sounds',
      file: make('two', { output: ['-map', '0:v', '-map', '1:a', '-map', '1:a', ...H264, ...TAGS, ...AAC] }),
      how: 'two sound tracks',
      facts: { 'Sound tracks': /2/ },
    },
    {
      name: 'ntsc',
      file: make('ntsc', { rate: '30000/1001' }),
      how: '29.97 fps',
      facts: { 'Frame rate': '29.97 fps' },
    },
    { name: 'fast', file: make('fast', { rate: '60' }), how: '60 fps', facts: { 'Frame rate': '60 fps' } },
    { name: 'tall', file: make('tall', { size: '180x320' }), how: 'already tall', facts: { Ratio: '9:16' } },
  ];
  const stay: Specimen[] = [
    {
      name: 'hevc',
      file: make('hevc', {
        output: encoded('libx265', ['-preset', 'ultrafast', '-x265-params', 'log-level=none']),
      }),
      how: 'H.265 in MP4',
      refused: /cannot decode H\.265/,
    },
    {
      name: 'mpeg4',
      file: make('mpeg4', { output: encoded('mpeg4') }),
      how: 'MPEG-4 Part 2',
      refused: /cannot decode/,
    },
    {
      name: 'editing-codec',
      file: make('editing', { ext: 'mov', output: ['-c:v', 'prores_ks', '-profile:v', '0', ...AAC] }),
      how: 'a 4:2:2 editing codec in MOV',
      refused: /cannot decode/,
    },
    {
      name: 'avi',
      file: make('avi', { ext: 'avi', output: [...H264, ...AAC] }),
      how: 'AVI',
      refused: /not a video file that can be read/,
    },
    {
      name: 'no-index',
      file: cutOff(base, 'no-index', 0.6),
      how: 'cut off before its index',
      refused: /cut off/,
    },
    { name: 'cut-off', file: cutOff(fast, 'cut-off', 0.55), how: 'cut off in its data', refused: /cut off/ },
    {
      name: 'damaged',
      file: scribbled(fast, 'damaged'),
      how: 'data overwritten',
      refused: /damaged|could not be decoded/,
    },
    {
      name: 'sound-only',
      file: rewrap(base, 'sound-only', 'mp4', ['-vn']),
      how: 'sound without picture',
      refused: /no picture/,
    },
    { name: 'empty', file: plain('empty.mp4', ''), how: 'no bytes', refused: /is empty/ },
    {
      name: 'text',
      file: plain('text.mp4', 'this is no film\n'.repeat(40)),
      how: 'text named .mp4',
      refused: /not a video file/,
    },
    { name: 'tiny', file: make('tiny', { size: '8x8' }), how: '8×8', refused: /too small/ },
  ];
  return [...come, ...stay];
}
