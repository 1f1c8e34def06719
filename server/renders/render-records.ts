import { z } from 'zod';
import { byteCount } from '../../src/core/figures/bounded';
import { randomIdSchema, type RandomId } from '../../src/core/figures/random-id';
import { RENDER_FAULTS, type RenderFault } from '../../src/core/render/render-faults';
import type { Database } from '../store/database';

const rowSchema = z.object({
  id: randomIdSchema,
  visitor: z.string(),
  /** Request for the render, as JSON. */
  asked: z.string(),
  state: z.enum(['waiting', 'done', 'failed']),
  fault: z.enum(RENDER_FAULTS).nullable(),
  bytes: byteCount().nullable(),
});
/** A file that was asked for, as it is recorded: `waiting` until it ended one way or the other. */
export type RenderRecord = z.infer<typeof rowSchema>;

/** Files that browsers asked for, in the database. */
export class RenderRecords {
  constructor(private readonly database: Database) {}

  find(id: string): RenderRecord | null {
    const row: unknown = this.database.prepare('select * from renders where id = ?').get([id]);
    return row ? rowSchema.parse(row) : null;
  }

  begin(id: RandomId, visitor: string, asked: string): void {
    this.database
      .prepare(`insert into renders (id, visitor, asked, state, made_at) values (?, ?, ?, 'waiting', ?)`)
      .run([id, visitor, asked, Date.now()]);
  }

  done(id: string, bytes: number): void {
    this.database.prepare(`update renders set state = 'done', bytes = ? where id = ?`).run([bytes, id]);
  }

  failed(id: string, fault: RenderFault): void {
    this.database.prepare(`update renders set state = 'failed', fault = ? where id = ?`).run([fault, id]);
  }

  /** Writes down that it is begun. @returns how often it was, without what `undoStart` took back. */
  countStart(id: RandomId): number {
    const row = this.database
      .prepare('update renders set starts = starts + 1 where id = ? returning starts')
      .get([id]) as { starts: number } | undefined;
    return row?.starts ?? 0;
  }

  /** It was stopped in order, and did not end the server. */
  undoStart(id: RandomId): void {
    this.database.prepare('update renders set starts = starts - 1 where id = ?').run([id]);
  }

  forget(id: string): void {
    this.database.prepare('delete from renders where id = ?').run([id]);
  }

  /** Lists renders that have not ended, oldest first. */
  waiting(): RandomId[] {
    return this.ids(`state = 'waiting' order by made_at`, []);
  }

  madeBefore(moment: number): RandomId[] {
    return this.ids('made_at < ?', [moment]);
  }

  private ids(where: string, values: number[]): RandomId[] {
    const rows = this.database.prepare(`select id from renders where ${where}`).all(values) as {
      id: RandomId;
    }[];
    return rows.map(({ id }) => id);
  }
}
