import { z } from 'zod';

/** Who may see a post. */
export const AUDIENCES = ['private', 'unlisted', 'friends', 'public'] as const;
export const audienceSchema = z.enum(AUDIENCES);
export type Audience = z.infer<typeof audienceSchema>;
