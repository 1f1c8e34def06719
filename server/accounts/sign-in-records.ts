import { createHash } from 'node:crypto';
import { z } from 'zod';
import { timestampMs } from '../../src/core/figures/bounded';
import type { Database } from '../store/database';

/** A sign-in that was begun must end within this time, in milliseconds. */
const LIFE = 15 * 60_000;

const rowSchema = z.object({
  visitor: z.string(),
  outlet: z.string(),
  issuer: z.string(),
  verifier: z.string(),
  nonce: z.string(),
  back: z.string(),
  made_at: timestampMs(),
});
/** A sign-in that was begun. */
export type SignInRecord = Omit<z.infer<typeof rowSchema>, 'made_at'>;

const hashText = (state: string): string => createHash('sha256').update(state).digest('hex');

/** Sign-ins that were begun, each by its state, which is used once. */
export class SignInRecords {
  constructor(private readonly database: Database) {}

  add(state: string, { visitor, outlet, issuer, verifier, nonce, back }: SignInRecord): void {
    this.database
      .prepare(
        `insert into sign_ins (state, visitor, outlet, issuer, verifier, nonce, back, made_at)
         values (?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run([hashText(state), visitor, outlet, issuer, verifier, nonce, back, Date.now()]);
  }

  /** Takes one away for good. @returns null where there is none, or it was begun too long ago. */
  take(state: string): SignInRecord | null {
    const row = this.database
      .prepare('delete from sign_ins where state = ? returning *')
      .get([hashText(state)]);
    const read = rowSchema.safeParse(row);
    if (!read.success || Date.now() - read.data.made_at > LIFE) return null;
    return read.data;
  }

  /** Forgets those that were never finished. */
  sweep(now: number): void {
    this.database.prepare('delete from sign_ins where made_at < ?').run([now - LIFE]);
  }
}
