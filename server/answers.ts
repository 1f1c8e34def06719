import type { Request, Response } from 'express';
import type { z } from 'zod';

/** What a request's body is by a schema; null where it is not, which the asker is told. */
export function bodyOf<T>(request: Request, response: Response, schema: z.ZodType<T>): T | null {
  const read = schema.safeParse(request.body);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  response.status(422).json({ error: `${issue?.path.join('.')}: ${issue?.message}` });
  return null;
}
