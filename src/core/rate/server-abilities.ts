import type { RateKind } from './encoding';
import type { FormatId } from './format';

const ALL: readonly RateKind[] = ['worked-out', 'variable', 'constant', 'quality', 'size'];
/** VP9 and AV1 have no way to fill up what falls short of a constant rate. */
const WIDE: readonly RateKind[] = ['worked-out', 'variable', 'quality'];

/** Abilities of an encoder for a canvas: by format, its rate modes. */
export type EncoderAbilities = Partial<Record<FormatId, readonly RateKind[]>>;

/** Formats and rate modes of the server's encoders (`server/render/encoder-args.ts`). */
export const SERVER_ABILITIES: EncoderAbilities = {
  ...{ 'mp4-avc': ALL, 'mov-avc': ALL },
  ...{ 'mp4-vp9': WIDE, 'mp4-av1': WIDE, 'webm-vp9': WIDE, 'webm-av1': WIDE },
  ...{ lossless: ['worked-out'], sound: ['worked-out'] },
};
