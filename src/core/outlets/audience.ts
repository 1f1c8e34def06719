import { z } from 'zod';

/** Who may see a post. */
export const audienceSchema = z.enum(['private', 'unlisted', 'public']);
export type Audience = z.infer<typeof audienceSchema>;
