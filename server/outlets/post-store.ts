import { readFile, rename, writeFile } from 'node:fs/promises';
import { z } from 'zod';
import { audienceSchema } from '../../src/core/outlets/audience';

/** A post that an outlet took. */
export const keptPostSchema = z.object({
  id: z.string(),
  placement: z.string(),
  title: z.string(),
  description: z.string(),
  tags: z.array(z.string()),
  audience: audienceSchema,
  at: z.iso.datetime(),
  /** What the outlet measured, in a line. */
  measured: z.string(),
});
export type KeptPost = z.infer<typeof keptPostSchema>;

/** Posts of one outlet in one JSON file, newest first. */
export class PostStore {
  private queue: Promise<unknown> = Promise.resolve();

  constructor(private readonly file: string) {}

  async all(): Promise<KeptPost[]> {
    try {
      return z.array(keptPostSchema).parse(JSON.parse(await readFile(this.file, 'utf8')));
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return [];
      throw error;
    }
  }

  /** Adds a post; one at a time, and the file is never half written. */
  add(post: KeptPost): Promise<void> {
    const work = this.queue.then(async () => {
      const posts = [post, ...(await this.all())];
      await writeFile(`${this.file}.new`, JSON.stringify(posts, null, 1));
      await rename(`${this.file}.new`, this.file);
    });
    this.queue = work.catch(() => undefined);
    return work;
  }
}
