import { z } from 'zod';
import { frameIndex } from '../figures/bounded';
import { bordersSchema } from '../picture/borders';

/** Fact of a finished file: its planned and its measured value. */
const proofFactSchema = z.object({
  what: z.string(),
  asked: z.string(),
  found: z.string(),
  ok: z.boolean(),
});
export type ProofFact = z.infer<typeof proofFactSchema>;

/** Result of reading a finished file back. */
export const proofSchema = z.object({
  facts: z.array(proofFactSchema),
  /** Decoded frames that were searched for black borders. */
  framesSearched: frameIndex(),
  /** The widest black borders of any shot that were not planned. */
  borders: bordersSchema,
  pass: z.boolean(),
});
export type Proof = z.infer<typeof proofSchema>;
