import type { Size } from '../picture/size';
import { type FrameRate, rateValue } from '../time/frame-rate';

/** Facts of a stream that its codec string states. */
interface Stream {
  codec: 'avc' | 'vp9' | 'av1';
  profile: 'main' | 'high';
  /** Of H.264, times ten. */
  level: number | null;
}

/**
 * Levels of VP9 by luma samples a second and a picture (VP9 Levels, "VP9 Bitstream & Decoding Process Specification",
 * annex A; from memory), and of AV1 by the same (AV1 Bitstream & Decoding Process Specification, annex A.3; from memory).
 */
const VP9_LEVELS: readonly [level: number, rate: number, picture: number][] = [
  [30, 36_864_000 / 2, 552_960],
  [31, 36_864_000, 983_040],
  [40, 83_558_400, 2_228_224],
  [41, 160_432_128, 2_228_224],
  [50, 311_951_360, 8_912_896],
  [51, 588_251_136, 8_912_896],
  [52, 1_176_502_272, 8_912_896],
  [60, 1_176_502_272, 35_651_584],
];
const AV1_LEVELS: readonly [index: number, rate: number, picture: number][] = [
  [4, 24_969_600, 665_856],
  [5, 39_938_400, 1_065_024],
  [8, 77_856_768, 2_359_296],
  [9, 155_713_536, 2_359_296],
  [12, 273_715_200, 8_912_896],
  [13, 547_430_400, 8_912_896],
  [14, 1_094_860_800, 8_912_896],
  [16, 1_094_860_800, 35_651_584],
];

/**
 * Makes the codec string that an encoder is configured with, and that a container states of its stream (RFC
 * 6381; the codecs' own registrations).
 */
export function codecString({ codec, profile, level }: Stream, size: Size, rate: FrameRate): string {
  const samples = size.width * size.height;
  const findMin = (levels: typeof VP9_LEVELS): string => {
    const found = levels.find(([, most, picture]) => samples <= picture && samples * rateValue(rate) <= most);
    return String((found ?? levels[levels.length - 1])?.[0]).padStart(2, '0');
  };
  if (codec === 'vp9') return `vp09.00.${findMin(VP9_LEVELS)}.08`;
  if (codec === 'av1') return `av01.0.${findMin(AV1_LEVELS)}M.08`;
  const idc = (level ?? 52).toString(16).padStart(2, '0');
  return `avc1.${profile === 'main' ? '4d' : '64'}00${idc}`;
}
