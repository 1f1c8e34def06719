import { z } from 'zod';
import { bitrate, boundedInt, frameCount, frameIndex } from '../../src/core/figures/bounded';
import { fingerprintSchema } from '../../src/core/master/fingerprint';
import { pictureMakingSchema } from '../../src/core/render/encode-settings-schema';
import { renderPlanSchema } from '../../src/core/render/plan-schema';
import { FORMAT_IDS } from '../../src/core/rate/format';
import { failureSchema } from '../render/failure';

/** The queue that segments wait in. */
export const QUEUE = 'gusset-segments';

const webAddress = z.url({ protocol: /^https?$/ });

/** Entry of the queue: where a worker learns what to do. */
export const segmentTicketSchema = z.object({ ticket: webAddress });
export type SegmentTicket = z.infer<typeof segmentTicketSchema>;

/** Files that go between the server and a worker: the segment, and what its first pass leaves for the second. */
export const SEGMENT_JOB_FILES = ['segment', 'log', 'tree'] as const;
export type SegmentJobFile = (typeof SEGMENT_JOB_FILES)[number];

/** Encode settings that a worker is given: it encodes video alone. */
const makingSchema = z.object({
  format: z.enum(FORMAT_IDS),
  chosen: z.boolean(),
  picture: pictureMakingSchema,
  sound: z.null(),
});

/** The segment that is to be made; where its file goes is the worker's own affair. */
const taskSchema = z.object({
  bits: bitrate(),
  held: z.boolean(),
  segment: z.object({ start: frameIndex(), frames: frameCount() }),
  pass: z.union([z.literal(1), z.literal(2), z.null()]),
  keepsFrames: z.boolean(),
  threads: boundedInt(1, 64),
});

/** A segment to make. */
export const segmentJobSchema = z.object({
  version: z.string(),
  plan: renderPlanSchema,
  making: makingSchema,
  task: taskSchema,
  /** Where masters are fetched, by fingerprint; what is kept of a first pass; and where what is made is brought. */
  masters: z.record(fingerprintSchema, webAddress),
  kept: z.partialRecord(z.enum(SEGMENT_JOB_FILES), webAddress),
  made: z.partialRecord(z.enum(SEGMENT_JOB_FILES), webAddress),
});
export type SegmentJob = z.infer<typeof segmentJobSchema>;

/** How far a worker is, told while it works: the answer says whether that is still wanted. */
export const reportSchema = z.object({ frames: frameIndex() });

/** Why a segment cannot be made anywhere, as the queue keeps it. */
export const readFailure = (text: string) => {
  try {
    return failureSchema.parse(JSON.parse(text));
  } catch {
    return { reason: text, trouble: null };
  }
};
