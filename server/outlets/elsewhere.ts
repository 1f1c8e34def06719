import { readFileSync } from 'node:fs';
import { z } from 'zod';
import { describeProblem } from '../../src/core/figures/schema-problem';
import { isLoopback } from '../loopback';

/** An outlet that is reached at an address of its own. */
const elsewhereSchema = z.strictObject({
  /** Its address, without a slash at the end. */
  root: z
    .url({ protocol: /^https?$/, error: 'it is no web address', abort: true })
    .refine((root) => !root.endsWith('/'), { error: 'it ends with a slash' })
    // A token must not be read on its way.
    .refine((root) => root.startsWith('https:') || isLoopback(new URL(root).hostname), {
      error: 'it is neither https nor on this machine',
    }),
  /** Who this server is to it: what its authorization server registered. */
  client: z.strictObject({ id: z.string().min(1).max(200), secret: z.string().min(1).max(1000) }),
});

const outletsElsewhereSchema = z.record(z.string().regex(/^[a-z0-9-]{1,40}$/), elsewhereSchema);

/** Outlets that are reached at addresses of their own, by the id of their rule sheets. */
export type OutletsElsewhere = Readonly<z.infer<typeof outletsElsewhereSchema>>;

/** A file of outlets that cannot be used; its message says why. */
export class OutletsFileError extends Error {}

/** Reads a file of outlets that are elsewhere, as `docs/outlets.md` describes it. @throws OutletsFileError */
export function readOutletsElsewhere(file: string): OutletsElsewhere {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    throw new OutletsFileError(`${file} cannot be read: ${(error as Error).message}`);
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new OutletsFileError(`${file} is not JSON: ${(error as Error).message}`);
  }
  const read = outletsElsewhereSchema.safeParse(value);
  if (read.success) return read.data;
  throw new OutletsFileError(`${file} is not as docs/outlets.md says: ${describeProblem(read.error)}`);
}
