import { z } from 'zod';

/** Characters that no file name may contain: lone surrogates and control characters. */
const UNWRITABLE = /[\p{Surrogate}\p{Control}]/gu;

/** A file's name as a person or another program gave it, fit to be sent in a header. */
export const fileNameSchema = z
  .string()
  .min(1)
  .max(255)
  .transform((name) => name.replace(UNWRITABLE, '\uFFFD'));
