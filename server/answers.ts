import type { Request, Response } from 'express';
import type { z } from 'zod';
import { describeProblem } from '../src/core/figures/schema-problem';

/** Parses a request's body by a schema; where it does not fit, answers so and returns null. */
export function parseBody<T>(request: Request, response: Response, schema: z.ZodType<T>): T | null {
  const read = schema.safeParse(request.body);
  if (read.success) return read.data;
  response.status(422).json({ error: describeProblem(read.error, 'the request') });
  return null;
}
