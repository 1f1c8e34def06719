import { z } from 'zod';
import { TroubleError, troubleSchema } from '../../src/core/trouble/trouble';

/** Why something could not be made, as it is told across threads and machines. */
export const failureSchema = z.object({ reason: z.string(), trouble: troubleSchema.nullable() });
export type Failure = z.infer<typeof failureSchema>;

export const toFailure = (error: unknown): Failure => ({
  reason: error instanceof Error ? error.message : String(error),
  trouble: error instanceof TroubleError ? error.trouble : null,
});

/** The error that a failure tells of. */
export const toError = ({ reason, trouble }: Failure): Error =>
  trouble ? TroubleError.of(trouble) : new Error(reason);
