import { BUFFER_SECONDS } from '../../src/core/rate/buffer';
import type { VideoEncodeSettings } from '../../src/core/render/encode-settings';
import type { RenderPlan } from '../../src/core/render/plan';

/** Encoder pass: null for a single one, or the first or second of two with the log between them. */
export type EncoderPass = { number: 1 | 2; log: string } | null;

/** Bitrate limits of a segment. */
export interface SegmentBits {
  /** Video bits a second. */
  bits: number;
  /**
   * Enables VBV at a variable rate. A segment that is sure to stay under the maximum is encoded a tenth
   * faster without.
   */
  held: boolean;
}

/** Window over which a constant rate is kept, in seconds. */
const CONSTANT_WINDOW = 1;

/** Arguments with which ffmpeg reads raw frames of a plan. */
export const rawInput = ({ width, height, rate }: RenderPlan, from: string): string[] => [
  ...[
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    '-s',
    `${width}x${height}`,
    '-framerate',
    `${rate.num}/${rate.den}`,
  ],
  ...['-color_range', 'tv', '-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709'],
  ...['-i', from],
];

/**
 * How pictures are encoded with libx264, libvpx or libaom.
 * @param given what this segment may come to. @param threads of the encoder: the same give the same file.
 */
export function encoderArgs(
  picture: VideoEncodeSettings,
  given: SegmentBits,
  pass: EncoderPass,
  threads: number,
): string[] {
  const tags = [
    '-color_range',
    'tv',
    '-colorspace',
    'bt709',
    '-color_primaries',
    'bt709',
    '-color_trc',
    'bt709',
  ];
  const passes = pass ? ['-pass', String(pass.number), '-passlogfile', pass.log] : [];
  return [...CODECS[picture.codec](picture, given, pass), ...passes, '-threads', String(threads), ...tags];
}

type CodecArgs = (picture: VideoEncodeSettings, given: SegmentBits, pass: EncoderPass) => string[];

const CODECS: Record<VideoEncodeSettings['codec'], CodecArgs> = {
  avc(picture, given, pass) {
    const { profile, level, keyFrames, betweenFrames } = picture;
    // Headers that do not depend on the picture, so that segments fit behind each other; closed groups.
    const options = [`keyint=${keyFrames}`, `bframes=${betweenFrames}`, 'stitchable=1', 'open-gop=0'];
    if (picture.kind === 'constant') options.push('nal-hrd=cbr', 'force-cfr=1');
    // A first pass is there to be counted: looked at less closely it takes a third less time, and counts the same.
    if (pass?.number === 1) options.push('subme=1');
    return [
      ...['-c:v', 'libx264', '-preset', 'medium'],
      // What is lossless has a profile and a level of its own.
      ...(picture.kind === 'lossless' ? [] : ['-profile:v', profile]),
      ...(level === null ? [] : ['-level:v', (level / 10).toFixed(1)]),
      ...avcRate(picture, given),
      ...['-x264-params', options.join(':')],
    ];
  },
  vp9: (picture, { bits }) => [
    ...[
      '-c:v',
      'libvpx-vp9',
      '-row-mt',
      '1',
      '-deadline',
      'good',
      '-cpu-used',
      '3',
      '-g',
      String(picture.keyFrames),
    ],
    ...wideRate(picture, bits),
  ],
  av1: (picture, { bits }) => [
    ...['-c:v', 'libaom-av1', '-cpu-used', '6', '-row-mt', '1', '-g', String(picture.keyFrames)],
    ...wideRate(picture, bits),
  ],
};

function avcRate({ kind, quantiser, mostBits }: VideoEncodeSettings, { bits, held }: SegmentBits): string[] {
  const rate = (value: number) => String(Math.round(value));
  if (kind === 'lossless') return ['-qp', '0'];
  if (kind === 'quality') return ['-crf', String(quantiser)];
  if (kind === 'constant')
    return [
      '-b:v',
      rate(bits),
      '-minrate',
      rate(bits),
      '-maxrate',
      rate(bits),
      '-bufsize',
      rate(bits * CONSTANT_WINDOW),
    ];
  if (!held) return ['-b:v', rate(bits)];
  const most = Math.max(bits, mostBits);
  return ['-b:v', rate(bits), '-maxrate', rate(most), '-bufsize', rate(BUFFER_SECONDS * most)];
}

/** VP9 and AV1 have quantisers from 0 to 63. */
function wideRate({ kind, quantiser }: VideoEncodeSettings, bits: number): string[] {
  return kind === 'quality'
    ? ['-b:v', '0', '-crf', String(Math.round((quantiser * 63) / 51))]
    : ['-b:v', String(Math.round(bits))];
}

/** Tells whether the video is encoded in two passes. */
export const hasTwoPasses = ({ codec, kind, twoPasses }: VideoEncodeSettings): boolean =>
  codec === 'avc' && (kind === 'size' || (kind === 'variable' && twoPasses));
