import { z } from 'zod';
import {
  bitrate,
  boundedNumber,
  byteCount,
  boundedCount,
  frameIndex,
  MAX_SIDE_PIXELS,
  measure,
  seconds,
} from '../figures/bounded';
import { proofSchema } from '../proof/proof-record';
import { isUnderWay, POSTED_STATES } from '../posting/post-order';
import { FORMAT_IDS } from '../rate/format';
import { writtenCueSchema } from '../words/files/write-captions';

const EXPORT_STATES = ['running', 'paused', 'reading-back', 'done', 'failed', 'interrupted'] as const;

/** Export of a canvas, kept with the job. */
export const exportRecordSchema = z.object({
  id: z.string(),
  /** The clip that it was made of. */
  clip: z.string(),
  /** The canvas that it was made for, as it was then. */
  canvas: z.string(),
  dye: boundedCount(),
  placement: z.string().nullable(),
  width: boundedNumber(0, MAX_SIDE_PIXELS),
  height: boundedNumber(0, MAX_SIDE_PIXELS),
  fileName: z.string(),
  format: z.enum(FORMAT_IDS).default('mp4-avc'),
  /** Who makes it; not there for this browser. */
  maker: z.enum(['browser', 'server']).optional(),
  /** Output frames; not there in older ones. */
  frames: frameIndex().optional(),
  /** Batch ID that exports queued together share. */
  go: z.string().optional(),
  place: measure().optional(),
  /** How much of it was made when it was paused, 0…1. */
  share: measure().optional(),
  startedAt: z.iso.datetime(),
  state: z.enum(EXPORT_STATES),
  /** Signature of the state that it was made from, so that a later change shows. */
  signature: z.string(),
  videoBits: bitrate(),
  error: z.string().nullable(),
  bytes: byteCount().nullable(),
  /** Seconds that the export took, and how many of the clip's seconds it made in each. */
  tookSeconds: seconds().nullable(),
  proof: proofSchema.nullable(),
  /** Captions that go beside it as files: seconds of the clip; not there where none do. */
  captions: z.array(writtenCueSchema).optional(),
});
export type ExportRecord = z.infer<typeof exportRecordSchema>;

/** Tells whether an export has not ended yet. */
export const isUnfinished = ({ state }: ExportRecord): boolean =>
  state === 'running' || state === 'reading-back';

/** Post of an export to an outlet. */
export const postRecordSchema = z.object({
  id: z.string(),
  clip: z.string(),
  exportId: z.string(),
  outlet: z.string(),
  /** The name of the account; not there in older ones. */
  account: z.string().optional(),
  title: z.string(),
  audience: z.string(),
  at: z.iso.datetime(),
  /** Older ones say `accepted` of what is up. */
  state: z.enum(['accepted', ...POSTED_STATES]),
  /** Why it was refused, or came to nothing. */
  reasons: z.array(z.string()),
  /** Where the outlet shows it, from the server's root. */
  page: z.string().nullable(),
});
export type PostRecord = z.infer<typeof postRecordSchema>;

/** Tells whether a post can be seen at its outlet, or is on its way there. */
export const isOut = ({ state }: Pick<PostRecord, 'state'>): boolean =>
  state === 'accepted' || state === 'up' || isUnderWay({ state });

/** Tells whether a post can be seen at its outlet. */
export const isPosted = ({ state }: Pick<PostRecord, 'state'>): boolean =>
  state === 'accepted' || state === 'up';
