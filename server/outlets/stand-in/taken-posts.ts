import { z } from 'zod';
import { boundedNumber, byteCount, MAX_SIDE_PIXELS, timestampMs } from '../../../src/core/figures/bounded';
import { randomIdSchema } from '../../../src/core/figures/random-id';
import { type PostForm, postFormSchema } from '../../../src/core/outlets/post-form';
import type { Database } from '../../store/database';

/**
 * States of a post at an outlet: its file is inspected, refused, moved, compressed and shown, or something
 * failed.
 */
const STATES = ['looking', 'refused', 'failed', 'moving', 'processing', 'up'] as const;

const json = <T>(schema: z.ZodType<T>) =>
  z.string().transform((text, context): T => {
    const read = schema.safeParse(JSON.parse(text));
    if (read.success) return read.data;
    context.addIssue('the stored value has another shape');
    return z.NEVER;
  });
const viewedSchema = z.object({
  width: boundedNumber(0, MAX_SIDE_PIXELS),
  height: boundedNumber(0, MAX_SIDE_PIXELS),
  bytes: byteCount(),
});
export type ViewedFile = z.infer<typeof viewedSchema>;
const rowSchema = z.object({
  id: z.string(),
  outlet: z.string(),
  /** Of the account that it is of. */
  poster: z.string(),
  key: z.string(),
  upload: randomIdSchema,
  form: json(postFormSchema),
  state: z.enum(STATES),
  reasons: json(z.array(z.string())),
  /** Measured facts of the file, in a line. */
  measured: z.string().nullable(),
  /** Compressed file that viewers get. */
  viewed: json(viewedSchema.nullable()),
  /** Milliseconds. */
  made_at: timestampMs(),
});
/** A post as it is recorded. */
export type TakenPost = z.infer<typeof rowSchema>;

/** The posts of one outlet, in the database. */
export class TakenPosts {
  constructor(
    private readonly database: Database,
    private readonly outlet: string,
  ) {}

  /** The post that somebody asked for by a key of theirs. */
  ofKey(poster: string, key: string): TakenPost | null {
    return this.some('poster = ? and key = ?', [poster, key])[0] ?? null;
  }

  withId(id: string): TakenPost | null {
    return this.some('id = ?', [id])[0] ?? null;
  }

  /** Posts that are up, newest first. */
  up(): TakenPost[] {
    return this.some(`state = 'up' order by made_at desc`, []);
  }

  in(state: TakenPost['state']): TakenPost[] {
    return this.some('state = ?', [state]);
  }

  /** Tells whether a post that is inspected or moved has an upload. */
  uses(upload: string): boolean {
    return this.some(`upload = ? and state in ('looking', 'moving')`, [upload]).length > 0;
  }

  /** Writes down that the outlet looks at an upload. */
  begin(form: PostForm, id: string, poster: string, key: string): void {
    this.database
      .prepare(
        `insert into outlet_posts (id, outlet, poster, key, upload, form, state, reasons, viewed, made_at)
         values (?, ?, ?, ?, ?, ?, 'looking', '[]', 'null', ?)`,
      )
      .run([id, this.outlet, poster, key, form.upload, JSON.stringify(form), Date.now()]);
  }

  refuse(id: string, reasons: readonly string[]): void {
    this.set(id, `state = 'refused', reasons = ?`, [JSON.stringify(reasons)]);
  }

  fail(id: string, reason: string): void {
    this.set(id, `state = 'failed', reasons = ?`, [JSON.stringify([reason])]);
  }

  /** From here on the outlet has taken it: its file is moved, now or when the server starts again. */
  take(id: string, measured: string): void {
    this.set(id, `state = 'moving', measured = ?`, [measured]);
  }

  process(id: string): void {
    this.set(id, `state = 'processing'`, []);
  }

  show(id: string, viewed: ViewedFile): void {
    this.set(id, `state = 'up', viewed = ?`, [JSON.stringify(viewed)]);
  }

  change(id: string, form: PostForm): void {
    this.set(id, 'form = ?', [JSON.stringify(form)]);
  }

  forget(id: string): void {
    this.database.prepare('delete from outlet_posts where id = ? and outlet = ?').run([id, this.outlet]);
  }

  private set(id: string, what: string, values: string[]): void {
    this.database
      .prepare(`update outlet_posts set ${what} where id = ? and outlet = ?`)
      .run([...values, id, this.outlet]);
  }

  private some(where: string, values: string[]): TakenPost[] {
    const rows = this.database
      .prepare(`select * from outlet_posts where outlet = ? and ${where}`)
      .all([this.outlet, ...values]);
    return rows.flatMap((row) => {
      const read = rowSchema.safeParse(row);
      if (!read.success) console.error(`a stored post cannot be read: ${read.error.message}`);
      return read.success ? [read.data] : [];
    });
  }
}
