import type { RandomId } from '../../src/core/figures/random-id';
import type { Database } from '../store/database';

/** A master that a browser sent, and the upload that it came in. */
export interface MasterRecord {
  visitor: string;
  fingerprint: string;
  upload: RandomId;
}

/** Masters that browsers sent to have files made of them, in the database. */
export class MasterRecords {
  constructor(private readonly database: Database) {}

  put({ visitor, fingerprint, upload }: MasterRecord): void {
    this.database
      .prepare('insert or replace into masters (visitor, fingerprint, upload, used_at) values (?, ?, ?, ?)')
      .run([visitor, fingerprint, upload, Date.now()]);
  }

  find(visitor: string, fingerprint: string): MasterRecord | null {
    const row = this.database
      .prepare('select visitor, fingerprint, upload from masters where visitor = ? and fingerprint = ?')
      .get([visitor, fingerprint]) as MasterRecord | undefined;
    return row ?? null;
  }

  ofVisitor(visitor: string): MasterRecord[] {
    return this.rows('visitor = ?', visitor);
  }

  /** Lists masters that nobody used since a moment, in milliseconds. */
  usedBefore(moment: number): MasterRecord[] {
    return this.rows('used_at < ?', moment);
  }

  hasUpload(upload: string): boolean {
    return this.rows('upload = ?', upload).length > 0;
  }

  /** It was used just now. */
  use(visitor: string, fingerprint: string): void {
    this.database
      .prepare('update masters set used_at = ? where visitor = ? and fingerprint = ?')
      .run([Date.now(), visitor, fingerprint]);
  }

  forget(visitor: string, fingerprint: string): void {
    this.database
      .prepare('delete from masters where visitor = ? and fingerprint = ?')
      .run([visitor, fingerprint]);
  }

  private rows(where: string, value: string | number): MasterRecord[] {
    return this.database
      .prepare(`select visitor, fingerprint, upload from masters where ${where}`)
      .all([value]) as MasterRecord[];
  }
}
