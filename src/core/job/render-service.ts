import { z } from 'zod';
import { boundedInt, byteCount, MAX_BITRATE, measure } from '../figures/bounded';
import { shortHash } from '../figures/short-hash';
import type { EncodeSettings } from '../render/encode-settings';
import type { RenderPlan } from '../render/plan';
import { RENDER_FAULTS } from '../render/render-faults';
import { ruleSheetSchema } from '../outlets/rule-sheet';
import { type Job, jobSchema, onCanvas, onClip } from './job';

/** Where a render server takes what it makes files of, from its root. */
export const RENDER_PATH = '/render/api';
/** Address that tells whether the server can render. */
export const RENDER_ABILITY = `${RENDER_PATH}/ability`;
/** Where masters are uploaded (tus); an upload's metadata say its `fingerprint`. */
export const RENDER_UPLOADS = `${RENDER_PATH}/uploads`;
/** Masters of this browser that are there, by fingerprint; DELETE forgets one. */
export const RENDER_MASTERS = `${RENDER_PATH}/masters`;
export const masterPath = (fingerprint: string): string => `${RENDER_MASTERS}/${fingerprint}`;
/** Files that are asked for. */
export const RENDERS = `${RENDER_PATH}/renders`;
/** Where one stands; DELETE stops it and forgets it. */
export const renderPath = (id: string): string => `${RENDERS}/${id}`;
/** The same as server-sent events, and the finished file. */
export const renderEvents = (id: string): string => `${renderPath(id)}/events`;
export const renderedPath = (id: string): string => `${renderPath(id)}/file`;

export const renderAbilitySchema = z.object({ ffmpeg: z.boolean() });

/** Request for a file: a job, which of its clips and canvases, and the sheets that it is judged by. */
export const renderRequestSchema = z.object({
  job: jobSchema.omit({ exports: true, posts: true }),
  clip: z.string(),
  canvas: z.string(),
  sheets: z.array(ruleSheetSchema).max(20),
  /** Hash of what the browser makes of it: a server of another version says so, and makes nothing else. */
  mark: z.string(),
  /** Video bits a second that a trial of rates advised; null where there was none. */
  advised: boundedInt(1, MAX_BITRATE).nullable().default(null),
});
export type RenderRequest = z.infer<typeof renderRequestSchema>;

/** The job of a request, on the canvas that it is for; null where it has no such one. */
export function createRequestedJob({
  job,
  clip,
  canvas,
}: Pick<RenderRequest, 'job' | 'clip' | 'canvas'>): Job | null {
  const whole: Job = { ...job, exports: [], posts: [] };
  const found = whole.edit.clips.find(({ id }) => id === clip);
  if (!found?.canvases.some(({ id }) => id === canvas)) return null;
  return onCanvas(onClip(whole, clip), canvas);
}

/** Where a file stands that was asked for. */
export const renderStateSchema = z.discriminatedUnion('state', [
  z.object({ state: z.literal('queued') }),
  z.object({ state: z.literal('running'), done: measure(), total: measure() }),
  z.object({ state: z.literal('done'), bytes: byteCount(1) }),
  z.object({ state: z.literal('failed'), fault: z.enum(RENDER_FAULTS) }),
]);
export type RenderState = z.infer<typeof renderStateSchema>;

/** A hash of what a file is made of, which does not depend on the order in which its facts were written down. */
export const renderMark = (plan: RenderPlan, making: EncodeSettings): string =>
  shortHash(inKeyOrder([plan, making], new Map()));

/**
 * A value whose objects have their keys in alphabetical order.
 * @param orders of keys that were found already: a plan has thousands of objects of few shapes.
 */
function inKeyOrder(value: unknown, orders: Map<string, string[]>): unknown {
  if (Array.isArray(value)) return value.map((item) => inKeyOrder(item, orders));
  if (typeof value !== 'object' || value === null) return value;
  const keys = Object.keys(value);
  const shape = keys.join();
  const order = orders.get(shape) ?? keys.sort();
  orders.set(shape, order);
  const ordered: Record<string, unknown> = {};
  // What is undefined is left out by JSON.
  for (const key of order) ordered[key] = inKeyOrder((value as Record<string, unknown>)[key], orders);
  return ordered;
}
