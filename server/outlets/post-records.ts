import { z } from 'zod';
import { type PostForm, postFormSchema } from '../../src/core/outlets/post-form';
import type { Database } from '../store/database';

/** What an outlet makes of an upload: it looks at it, refuses it, or takes the clip over and shows it. */
const STATES = ['looking', 'refused', 'moving', 'up'] as const;

const json = <T>(schema: z.ZodType<T>) =>
  z.string().transform((text, context): T => {
    const read = schema.safeParse(JSON.parse(text));
    if (read.success) return read.data;
    context.addIssue('the stored value has another shape');
    return z.NEVER;
  });
const rowSchema = z.object({
  upload: z.string(),
  id: z.string(),
  outlet: z.string(),
  poster: z.string(),
  form: json(postFormSchema),
  state: z.enum(STATES),
  reasons: json(z.array(z.string())),
  /** What the outlet measured, in a line. */
  measured: z.string().nullable(),
  /** Milliseconds. */
  made_at: z.number(),
});
/** A post as it is recorded, by the upload that it is of. */
export type PostRecord = z.infer<typeof rowSchema>;

/** The posts of one outlet, in the database. */
export class PostRecords {
  constructor(
    private readonly database: Database,
    private readonly outlet: string,
  ) {}

  ofUpload(upload: string): PostRecord | null {
    return this.read('upload = ?', [upload]);
  }

  withId(id: string): PostRecord | null {
    return this.read('id = ?', [id]);
  }

  /** Posts that are up, newest first. */
  up(): PostRecord[] {
    return this.some(`state = 'up' order by made_at desc`, []);
  }

  in(state: PostRecord['state']): PostRecord[] {
    return this.some('state = ?', [state]);
  }

  /** Writes down that the outlet looks at an upload, in the place of what was said of it before. */
  begin(form: PostForm, id: string, poster: string): void {
    this.database
      .prepare(
        `insert or replace into posts (upload, id, outlet, poster, form, state, reasons, made_at)
         values (?, ?, ?, ?, ?, 'looking', '[]', ?)`,
      )
      .run([form.upload, id, this.outlet, poster, JSON.stringify(form), Date.now()]);
  }

  refuse(upload: string, reasons: readonly string[]): void {
    this.set(upload, `state = 'refused', reasons = ?`, [JSON.stringify(reasons)]);
  }

  /** From here on the outlet has taken it: its file is moved, now or when the server starts again. */
  take(upload: string, measured: string): void {
    this.set(upload, `state = 'moving', measured = ?`, [measured]);
  }

  show(upload: string): void {
    this.set(upload, `state = 'up'`, []);
  }

  forget(upload: string): void {
    this.database.prepare('delete from posts where upload = ? and outlet = ?').run([upload, this.outlet]);
  }

  private set(upload: string, what: string, values: string[]): void {
    this.database
      .prepare(`update posts set ${what} where upload = ? and outlet = ?`)
      .run([...values, upload, this.outlet]);
  }

  private read(where: string, values: string[]): PostRecord | null {
    return this.some(where, values)[0] ?? null;
  }

  private some(where: string, values: string[]): PostRecord[] {
    const rows = this.database
      .prepare(`select * from posts where outlet = ? and ${where}`)
      .all([this.outlet, ...values]);
    return rows.flatMap((row) => {
      const read = rowSchema.safeParse(row);
      if (!read.success) console.error(`a stored post cannot be read: ${read.error.message}`);
      return read.success ? [read.data] : [];
    });
  }
}
