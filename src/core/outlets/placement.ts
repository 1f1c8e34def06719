import { z } from 'zod';
import { boundedInt, boundedNumber, MAX_BITRATE } from '../figures/bounded';
import { outletSide } from './limits/limit';
import { buildLimitSchemas } from './limits/limits';

const name = z.string().trim().min(1).max(60);
const share = boundedNumber(0, 1);

/** Devices on which an outlet's own controls lie elsewhere. */
export const DEVICES = ['phone', 'tablet', 'desk'] as const;
export type Device = (typeof DEVICES)[number];

/** A part of the screen that the outlet's own controls cover, 0…1 of the canvas. */
const zoneSchema = z
  .object({ name, x: share, y: share, width: share.positive(), height: share.positive() })
  .refine(({ x, width }) => x + width <= 1 + 1e-9, {
    error: 'The zone reaches past the right edge.',
    path: ['width'],
  })
  .refine(({ y, height }) => y + height <= 1 + 1e-9, {
    error: 'The zone reaches past the bottom edge.',
    path: ['height'],
  });
export type Zone = z.infer<typeof zoneSchema>;

/** A kind of post at an outlet: its limits, and how a clip is shown there. */
export const placementSchema = z.object({
  id: z.string().regex(/^[a-z0-9-]{1,40}$/, { error: 'Use small letters, figures and hyphens.' }),
  name,
  ...buildLimitSchemas(),
  /** True when it plays without sound until a viewer asks for it. */
  muted: z.boolean(),
  zones: z.object({ phone: z.array(zoneSchema), tablet: z.array(zoneSchema), desk: z.array(zoneSchema) }),
  /** Renditions that the outlet compresses a clip to, the largest first. */
  ladder: z.array(z.object({ width: outletSide(), height: outletSide(), bits: boundedInt(1, MAX_BITRATE) })),
});
export type Placement = z.infer<typeof placementSchema>;

/** Lists the zones that a placement puts over the picture, on whatever device. */
export const allZones = ({ zones }: Pick<Placement, 'zones'>): Zone[] =>
  DEVICES.flatMap((device) => zones[device]);
