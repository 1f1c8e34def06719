import { z } from 'zod';
import { measure } from '../figures/bounded';

/** Widths of the black borders of a picture, in pixels. */
export const bordersSchema = z.object({
  left: measure(),
  top: measure(),
  right: measure(),
  bottom: measure(),
});
export type Borders = z.infer<typeof bordersSchema>;

export const NO_BORDERS: Borders = { left: 0, top: 0, right: 0, bottom: 0 };
