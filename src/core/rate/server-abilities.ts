import type { RateKind } from './encoding';
import type { FormatId } from './format';

const ALL: readonly RateKind[] = ['worked-out', 'variable', 'constant', 'quality', 'size'];
/** VP9 and AV1 have no way to fill up what falls short of a constant rate. */
const WIDE: readonly RateKind[] = ['worked-out', 'variable', 'quality'];

/** What a maker can make of a canvas: by format, the ways to share its bits out. */
export type Abilities = Partial<Record<FormatId, readonly RateKind[]>>;

/** What the server's encoders make (`server/render/encoder-args.ts`). */
export const SERVER_ABILITIES: Abilities = {
  ...{ 'mp4-avc': ALL, 'mov-avc': ALL },
  ...{ 'mp4-vp9': WIDE, 'mp4-av1': WIDE, 'webm-vp9': WIDE, 'webm-av1': WIDE },
  ...{ lossless: ['worked-out'], sound: ['worked-out'] },
};
