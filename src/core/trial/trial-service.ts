import { z } from 'zod';
import { measure } from '../figures/bounded';
import { RENDER_PATH, renderRequestSchema } from '../job/render-service';
import { trialOrderSchema, trialResultSchema } from './rate-trial';

/** Trials of bit rates that are asked for. */
export const TRIALS = `${RENDER_PATH}/trials`;
/** Where one stands; DELETE stops it and forgets it. */
export const trialPath = (id: string): string => `${TRIALS}/${id}`;
/** The worst frame at one of its rates, as PNG. */
export const trialPicturePath = (id: string, rate: string, kind: string): string =>
  `${trialPath(id)}/${rate}/${kind}`;

/** Request for a trial: that for a file, and what of it is tried. */
export const trialRequestSchema = renderRequestSchema.extend({ trial: trialOrderSchema });
export type TrialRequest = z.infer<typeof trialRequestSchema>;

/** Where a trial stands. */
export const trialStateSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('queued') }),
  z.object({ state: z.literal('running'), done: measure(), total: measure() }),
  z.object({ state: z.literal('done'), result: trialResultSchema }),
  z.object({ state: z.literal('failed') }),
]);
export type TrialState = z.infer<typeof trialStateSchema>;
