import { z } from 'zod';

/** Widths of the black borders of a picture, in pixels. */
export const bordersSchema = z.object({
  left: z.number(),
  top: z.number(),
  right: z.number(),
  bottom: z.number(),
});
export type Borders = z.infer<typeof bordersSchema>;

export const NO_BORDERS: Borders = { left: 0, top: 0, right: 0, bottom: 0 };
