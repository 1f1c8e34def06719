import { z } from 'zod';
import { boundedCount, timestampMs } from '../../src/core/figures/bounded';
import {
  type DispatchedPost,
  postedSchema,
  postOrderSchema,
  type PostOrder,
} from '../../src/core/posting/post-order';
import { toTimestamp } from '../../src/core/posting/when';
import type { Database } from '../store/database';

/** Columns that never leave the server. */
const ownSchema = z.object({
  visitor: z.string(),
  /** Where its file is uploaded to, and what that is called once it is whole. */
  address: z.string().nullable(),
  outletUpload: z.string().nullable(),
  /** ID of the post at its outlet. */
  outletId: z.string().nullable(),
  /** Under which key it was asked for last, where no answer says what became of that. */
  unansweredKey: z.string().nullable().default(null),
  /** Its person called it back, and the outlet could not be asked. */
  recalled: z.boolean().default(false),
  /** How often it was asked for with other words. */
  round: boundedCount(),
  tries: boundedCount(),
  /** When it is to go out, or to be tried again, in milliseconds. */
  due: timestampMs(),
});
const recordSchema = postedSchema.extend(ownSchema.shape);
/** A post as it is recorded. */
export type PostingRecord = z.infer<typeof recordSchema>;

/** Changes of a post on its way. */
export type PostingChange = Partial<Omit<PostingRecord, 'id' | 'visitor' | 'madeAt'>> & {
  /** In base 64; null for none any more. */
  cover?: string | null;
};

/**
 * Posts that the server makes, in the database: facts that are looked for in columns, all of it beside them. Records
 * come without their covers, which are long.
 */
export class PostingRecords {
  constructor(private readonly database: Database) {}

  add(order: PostOrder, visitor: string, file: { bytes: number }): PostingRecord {
    const now = Date.now();
    const record: PostingRecord = {
      ...withoutCover(order),
      ...{
        visitor,
        version: 1,
        state: 'waiting',
        bytes: file.bytes,
        sha256: null,
        sent: 0,
        share: 0,
        reasons: [],
      },
      ...{ hold: null, wait: null, ahead: false, page: null, compared: null, madeAt: now, upAt: null },
      ...{
        address: null,
        outletUpload: null,
        outletId: null,
        unansweredKey: null,
        recalled: false,
        round: 0,
        tries: 0,
      },
      due: order.when === null ? now : toTimestamp(order.when),
    };
    this.database
      .prepare(
        `insert into postings (id, visitor, account, upload, state, due, made_at, asked, facts, cover)
         values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      )
      .run([
        ...[record.id, visitor, record.account, record.upload, record.state, record.due],
        ...[now, getAsked(record), toFacts(record), order.words.cover],
      ]);
    return record;
  }

  find(id: string): PostingRecord | null {
    return this.some('id = ?', [id])[0] ?? null;
  }

  /** Lists the posts of a browser, newest first. */
  of(visitor: string): PostingRecord[] {
    return this.some('visitor = ? order by made_at desc, id', [visitor]);
  }

  in(...states: DispatchedPost['state'][]): PostingRecord[] {
    return this.some(`state in (${states.map(() => '?').join(', ')})`, states);
  }

  /** Of each account the one whose turn it is: their time has come, and they go out in order. */
  due(now: number): { id: string; account: string }[] {
    return this.database
      .prepare(
        `select id, account from (
           select id, account, due,
             row_number() over (partition by account order by due, made_at, rowid) as place
           from postings where state = 'waiting' and due <= ?
         ) where place = 1 order by due`,
      )
      .all([now]) as { id: string; account: string }[];
  }

  /** When the next one is due; null for none. */
  nextDue(now: number): number | null {
    const row = this.database
      .prepare(`select min(due) as due from postings where state = 'waiting' and due > ?`)
      .get([now]) as { due: number | null };
    return row.due;
  }

  /** Tells whether an unfinished post needs a file. */
  needs(upload: string): boolean {
    const row = this.database
      .prepare(`select 1 from postings where upload = ? and state not in ('up', 'down') limit 1`)
      .get([upload]);
    return row !== undefined;
  }

  /** Posts of an account. */
  ofAccount(account: string): PostingRecord[] {
    return this.some('account = ?', [account]);
  }

  change(id: string, { cover, ...change }: PostingChange): PostingRecord | null {
    const known = this.find(id);
    if (!known) return null;
    const changed = withoutCover({ ...known, ...change, version: known.version + 1 });
    this.database
      .prepare('update postings set account = ?, state = ?, due = ?, facts = ? where id = ?')
      .run([changed.account, changed.state, changed.due, toFacts(changed), id]);
    if (cover !== undefined)
      this.database.prepare('update postings set cover = ? where id = ?').run([cover, id]);
    if (change.words ?? change.when ?? change.account)
      this.database.prepare('update postings set asked = ? where id = ?').run([getAsked(changed), id]);
    return changed;
  }

  /** Its cover, in base 64; null for none. */
  findCover(id: string): string | null {
    const row = this.database.prepare('select cover from postings where id = ?').get([id]) as
      { cover: string | null } | undefined;
    return row?.cover ?? null;
  }

  forget(id: string): void {
    this.database.prepare('delete from postings where id = ?').run([id]);
  }

  private some(where: string, values: (string | number)[]): PostingRecord[] {
    const rows = this.database.prepare(`select asked, facts from postings where ${where}`).all(values) as {
      asked: string;
      facts: string;
    }[];
    return rows.flatMap(({ asked, facts }) => {
      const read = recordSchema.safeParse({ ...JSON.parse(asked), ...JSON.parse(facts) });
      if (!read.success) console.error(`a post cannot be read: ${read.error.message}`);
      return read.success ? [read.data] : [];
    });
  }
}

const withoutCover = <T extends Pick<PostOrder, 'words'>>(order: T): T => ({
  ...order,
  words: { ...order.words, cover: null },
});

const getAsked = (record: PostingRecord): string => JSON.stringify(postOrderSchema.parse(record));

function toFacts(record: PostingRecord): string {
  const asked = new Set(Object.keys(postOrderSchema.shape));
  return JSON.stringify(Object.fromEntries(Object.entries(record).filter(([name]) => !asked.has(name))));
}

/** A post as its browser is told of it. */
export const toPublicPost = (record: PostingRecord): DispatchedPost => postedSchema.parse(record);
