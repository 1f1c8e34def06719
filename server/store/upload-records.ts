import path from 'node:path';
import { Upload } from '@tus/utils';
import { z } from 'zod';
import type { RandomId } from '../../src/core/figures/random-id';
import type { Database } from './database';

/** Facts that the tus library keeps of an upload. */
const factsSchema = z.object({
  metadata: z.record(z.string(), z.string().nullable()).optional(),
  creation_date: z.string().optional(),
});
interface Row {
  id: RandomId;
  size: number;
  facts: string;
}

/** An upload as the server knows it. */
export interface UploadRecord {
  id: RandomId;
  /** Bytes that were promised. */
  size: number;
}

/** The uploads of one door of the server, in the database; also what the tus library keeps its facts in. */
export class UploadRecords {
  constructor(
    private readonly database: Database,
    private readonly door: string,
    /** Where its bytes lie. */
    private readonly folder: string,
  ) {}

  get(id: string): Promise<Upload | undefined> {
    const row = this.row(id);
    if (!row) return Promise.resolve(undefined);
    const { metadata, creation_date } = factsSchema.parse(JSON.parse(row.facts));
    return Promise.resolve(
      new Upload({
        id,
        size: row.size,
        offset: 0,
        ...(metadata ? { metadata } : {}),
        ...(creation_date ? { creation_date } : {}),
      }),
    );
  }

  set(id: string, { size = 0, metadata, creation_date }: Upload): Promise<void> {
    this.database
      .prepare(
        `insert into uploads (id, door, folder, size, made_at, facts) values (?, ?, ?, ?, ?, ?)
         on conflict (id) do update set size = excluded.size, facts = excluded.facts`,
      )
      .run([id, this.door, this.folder, size, Date.now(), JSON.stringify({ metadata, creation_date })]);
    return Promise.resolve();
  }

  /** Its bytes are all on the disk. */
  setWhole(id: string): void {
    this.database.prepare('update uploads set whole = 1 where id = ? and door = ?').run([id, this.door]);
  }

  delete(id: string): Promise<void> {
    this.database.prepare('delete from uploads where id = ? and door = ?').run([id, this.door]);
    return Promise.resolve();
  }

  find(id: string): UploadRecord | null {
    return this.row(id) ?? null;
  }

  /** Uploads made before a moment, in milliseconds. */
  madeBefore(moment: number): UploadRecord[] {
    return this.database
      .prepare('select id, size, facts from uploads where door = ? and made_at < ?')
      .all([this.door, moment]) as Row[];
  }

  /** Ids of all uploads of this door. */
  ids(): string[] {
    const rows = this.database.prepare('select id from uploads where door = ?').all([this.door]) as Row[];
    return rows.map((row) => row.id);
  }

  private row(id: string): Row | undefined {
    return this.database
      .prepare('select id, size, facts from uploads where id = ? and door = ?')
      .get([id, this.door]) as Row | undefined;
  }
}

/** Where uploads of every door lie that are not whole yet. */
export function openUploadFiles(database: Database): string[] {
  const rows = database
    .prepare('select id, folder from uploads where whole = 0 and folder is not null')
    .all() as {
    id: string;
    folder: string;
  }[];
  return rows.map(({ id, folder }) => path.join(folder, id));
}

/** Bytes that all uploads of every door were promised, and those of uploads that are not whole yet. */
export function promisedBytes(database: Database): { all: number; open: number } {
  return database
    .prepare(
      `select coalesce(sum(size), 0) as "all", coalesce(sum(case whole when 0 then size end), 0) as open from uploads`,
    )
    .get() as { all: number; open: number };
}
