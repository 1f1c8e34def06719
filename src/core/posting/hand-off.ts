import { z } from 'zod';
import { fileNameSchema } from '../figures/file-name';
import { byteCount, boundedCount, seconds, timestampMs } from '../figures/bounded';
import { randomIdSchema } from '../figures/random-id';
import { fingerprintSchema } from '../master/fingerprint';

/** Where a desk hands files to a phone, from the server's root. */
const HAND_OFF_PATH = '/hand-off/api';
/** Where files to hand on come in (tus). */
export const HAND_OFF_UPLOADS = `${HAND_OFF_PATH}/uploads`;
/** Address of this browser's offers, and of whether phones can reach the server at all. */
export const OFFERS = `${HAND_OFF_PATH}/offers`;
export const offerPath = (id: string): string => `${OFFERS}/${id}`;
/** Gives an offer its whole life once more. */
export const offerLongerPath = (id: string): string => `${offerPath(id)}/longer`;
/** Every change of this browser's offers, as server-sent events. */
export const OFFER_EVENTS = `${HAND_OFF_PATH}/events`;

/** An offer is open for so long, in milliseconds. */
export const OFFER_LIFE = 10 * 60_000;

/** A file that a phone is to get. */
export const offerOrderSchema = z.object({
  /** Made by whoever asks: the same is one offer. */
  id: randomIdSchema,
  /** The last part of the file's address on the server. */
  upload: randomIdSchema,
  fileName: fileNameSchema,
});
export type OfferOrder = z.infer<typeof offerOrderSchema>;

/** Report of a phone on the file that it received. */
export const arrivalSchema = z.object({
  bytes: byteCount(),
  sha256: fingerprintSchema,
});
export type Arrival = z.infer<typeof arrivalSchema>;

/** Where an offer stands: it can be fetched, it has arrived unchanged, its time is over, or it was taken back. */
const OFFER_STATES = ['open', 'arrived', 'expired', 'closed'] as const;

/** An offer as the desk is told of it. */
export const offerSchema = offerOrderSchema.extend({
  state: z.enum(OFFER_STATES),
  /** Rises with every change: what comes later may be older. */
  version: boundedCount(),
  /** Where a phone gets it. */
  address: z.string(),
  bytes: byteCount(),
  sha256: z.string(),
  /** How long it plays; null for a still. */
  seconds: seconds().nullable(),
  /** When it ends, in milliseconds. */
  until: timestampMs(),
  /** How often a phone began to fetch it, and how far into the file it came, in bytes. */
  starts: boundedCount(),
  fetched: byteCount(),
  /** Last report of the phone, and whether it is the file that left. */
  found: arrivalSchema.extend({ same: z.boolean() }).nullable(),
});
export type Offer = z.infer<typeof offerSchema>;

/** All offers of a browser, and the address that phones reach the server at; null where they cannot. */
export const offersSchema = z.object({ lan: z.string().nullable(), offers: z.array(offerSchema) });
export type OfferList = z.infer<typeof offersSchema>;
