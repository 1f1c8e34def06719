import { z } from 'zod';
import { byteCount } from '../../src/core/figures/bounded';
import { CONVERSION_FAULTS, type ConversionFault } from '../../src/core/convert/protocol';
import { randomIdSchema, type RandomId } from '../../src/core/figures/random-id';
import type { Database } from '../store/database';

const rowSchema = z.discriminatedUnion('state', [
  z.object({ upload: randomIdSchema, state: z.literal('waiting') }),
  z.object({ upload: randomIdSchema, state: z.literal('done'), bytes: byteCount() }),
  z.object({ upload: randomIdSchema, state: z.literal('failed'), reason: z.enum(CONVERSION_FAULTS) }),
]);
/** A conversion as it is recorded: `waiting` until it ended one way or the other. */
export type ConversionRecord = z.infer<typeof rowSchema>;

/** Conversions in the database, by the upload that they are of. */
export class ConversionRecords {
  constructor(private readonly database: Database) {}

  find(upload: string): ConversionRecord | null {
    const row: unknown = this.database.prepare('select * from conversions where upload = ?').get([upload]);
    return row ? rowSchema.parse(row) : null;
  }

  begin(upload: string): void {
    this.database
      .prepare(`insert or replace into conversions (upload, state, made_at) values (?, 'waiting', ?)`)
      .run([upload, Date.now()]);
  }

  done(upload: string, bytes: number): void {
    this.database
      .prepare(`update conversions set state = 'done', bytes = ? where upload = ?`)
      .run([bytes, upload]);
  }

  failed(upload: string, fault: ConversionFault): void {
    this.database
      .prepare(`update conversions set state = 'failed', reason = ? where upload = ?`)
      .run([fault, upload]);
  }

  forget(upload: string): void {
    this.database.prepare('delete from conversions where upload = ?').run([upload]);
  }

  /** Uploads whose conversion did not end. */
  waiting(): RandomId[] {
    return this.uploads(`select upload from conversions where state = 'waiting'`);
  }

  madeBefore(moment: number): RandomId[] {
    return this.uploads('select upload from conversions where made_at < ?', [moment]);
  }

  private uploads(query: string, values: unknown[] = []): RandomId[] {
    return (this.database.prepare(query).all(values) as { upload: RandomId }[]).map((row) => row.upload);
  }
}
