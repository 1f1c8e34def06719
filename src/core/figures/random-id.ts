import { z } from 'zod';

/**
 * 128 random bits in lower-case hex: what uploads, orders, posts and accounts are called. As a checked type it may be
 * part of a path: it holds no dots and no slashes.
 */
export const randomIdSchema = z
  .string()
  .regex(/^[0-9a-f]{32}$/)
  .brand<'RandomId'>();
export type RandomId = z.infer<typeof randomIdSchema>;

/** Tells such an id from any other text. */
export const isRandomId = (text: string): text is RandomId => randomIdSchema.safeParse(text).success;

/** @throws ZodError for anything else. */
export const parseRandomId = (text: string): RandomId => randomIdSchema.parse(text);
