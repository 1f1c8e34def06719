import { z } from 'zod';
import { frameCount, frameIndex } from '../figures/bounded';
import { framingSchema } from '../framing/framing';
import { wordsSchema } from './clip';

/** Contents of the demo: its title, where its shots are, framings to start from, and words for a post. */
export const demoSchema = z.object({
  title: z.string(),
  /** File beside this one. */
  file: z.string(),
  /** A picture of it, beside this file. */
  poster: z.string(),
  shots: z.array(z.object({ id: z.string(), in: frameIndex(), out: frameCount() })).min(1),
  framings: z.array(framingSchema),
  words: wordsSchema,
});
export type Demo = z.infer<typeof demoSchema>;
