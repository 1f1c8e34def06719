import { z } from 'zod';
import { failureSchema } from '../render/failure';

/** The queue that segments wait in. */
export const QUEUE = 'gusset-segments';

/** What lies in the queue: where a worker learns what to do. */
export const errandTicketSchema = z.object({ ticket: z.url() });
export type ErrandTicket = z.infer<typeof errandTicketSchema>;

/** Files that go between the server and a worker: the segment, and what its first pass leaves for the second. */
export const ERRAND_FILES = ['segment', 'log', 'tree'] as const;
export type ErrandFile = (typeof ERRAND_FILES)[number];

/** A segment to make. Both sides are of one version: the plan is taken as it is. */
export const errandSchema = z.object({
  version: z.string(),
  plan: z.unknown(),
  making: z.unknown(),
  task: z.unknown(),
  /** Where masters are fetched, by fingerprint; what is kept of a first pass; and where what is made is brought. */
  masters: z.record(z.string(), z.url()),
  kept: z.partialRecord(z.enum(ERRAND_FILES), z.url()),
  made: z.partialRecord(z.enum(ERRAND_FILES), z.url()),
});
export type Errand = z.infer<typeof errandSchema>;

/** How far a worker is, told while it works: the answer says whether that is still wanted. */
export const reportSchema = z.object({ frames: z.number().int().nonnegative() });

/** Why a segment cannot be made anywhere, as the queue keeps it. */
export const readFailure = (text: string) => {
  try {
    return failureSchema.parse(JSON.parse(text));
  } catch {
    return { reason: text, trouble: null };
  }
};
