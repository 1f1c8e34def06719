import { PLAIN_PLACEMENT } from '@core/outlets/plain-placement';
import { PLAIN_ENCODING } from '@core/rate/encoding';
import { type EncodeSettings, toEncodeSettings } from '@core/render/encode-settings';
import type { RenderPlan } from '@core/render/plan';

/** An export of a plan as an MP4 at a variable rate. */
export const createEncodeSettings = (plan: RenderPlan, videoBits: number): EncodeSettings =>
  toEncodeSettings(plan, PLAIN_ENCODING, PLAIN_PLACEMENT, { bits: videoBits, reason: 'picture' });
