import { z } from 'zod';

/** SHA-256 of a file in lower-case hex. As a checked type it may be part of a path: it holds no dots and no slashes. */
export const fingerprintSchema = z
  .string()
  .regex(/^[0-9a-f]{64}$/)
  .brand<'Fingerprint'>();
export type Fingerprint = z.infer<typeof fingerprintSchema>;

/** Tells whether a text is a fingerprint. */
export const isFingerprint = (text: string): text is Fingerprint => fingerprintSchema.safeParse(text).success;

/** @throws ZodError for anything else. */
export const parseFingerprint = (text: string): Fingerprint => fingerprintSchema.parse(text);
