import type { z } from 'zod';

/** The first thing that a schema found wrong: `path: reason`. @param whole stands where the path is empty. */
export function describeProblem({ issues: [issue] }: z.ZodError, whole = 'it'): string {
  return `${issue?.path.join('.') || whole}: ${issue?.message ?? 'it cannot be read'}`;
}
