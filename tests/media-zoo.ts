import { AAC, H264, h264With, encoded, make, rewrap, TAGS, webm, withMatrix } from './make-specimen';
import { refusedSpecimens } from './refused-specimens';

/** Specimen: a small file of a kind that comes in from the wild. */
export interface Specimen {
  name: string;
  file: string;
  /** In a few words, for the table. */
  how: string;
  /** Facts that the app must show, beside those of ffprobe. */
  facts?: Record<string, string | RegExp>;
  /** Words of the refusal; without it the file must come in. */
  refused?: RegExp;
  /** True when the shown size differs from the stored one: turned, or of pixels that are not square. */
  sizeIsOwn?: boolean;
}

/** Makes every specimen. */
export function makeZoo(): Specimen[] {
  const base = make('base');
  const fast = make('faststart', {
    seconds: 4,
    output: h264With(['-movflags', '+faststart']),
  });
  const h264 = (profile = 'High') => ({ Picture: `H.264 ${profile}` });
  const interlaced = (order: 'top' | 'bottom') =>
    make(`interlaced-${order}`, {
      rate: '50',
      seconds: 2,
      filter: `tinterlace=interleave_${order}`,
      output: h264With(['-flags', '+ilme+ildct', '-x264opts', order === 'top' ? 'tff=1' : 'bff=1']),
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
      file: make('nob', { output: h264With(['-bf', '0']) }),
      how: 'no B-frames',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'many-b-frames',
      file: make('manyb', { output: h264With(['-bf', '8', '-b_strategy', '0']) }),
      how: 'eight B-frames in a row',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'long-gop',
      file: make('longgop', { seconds: 4, output: h264With(['-g', '999']) }),
      how: 'one key frame',
      facts: { Length: '00:00:04:00' },
    },
    {
      name: 'all-key',
      file: make('intra', { output: h264With(['-g', '1']) }),
      how: 'key frames only',
      facts: { Length: '00:00:01:00' },
    },
    {
      name: 'edit-list',
      file: rewrap(
        make('edits', { seconds: 3, output: h264With(['-g', '25']) }),
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
        output: h264With(['-fps_mode', 'vfr']),
      }),
      how: 'frames left out at random',
      facts: { 'Frame rate': /varies/, 'Frame time': /ms/ },
    },
    {
      name: 'odd-size',
      file: make('odd', {
        ext: 'webm',
        filter: 'scale=321:181,setsar=1,format=yuv420p',
        output: webm('libvpx-vp9'),
      }),
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
      file: make('44100', { output: h264With(['-ar', '44100']) }),
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
  return [...come, ...refusedSpecimens(base, fast)];
}
