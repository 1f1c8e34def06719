import { z } from 'zod';
import { describeProblem } from './schema-problem';

/** Things under names as a JSON file: how it is written, and how it is read. */
export interface NamedFile<Named extends { name: string }> {
  write(all: readonly Named[]): string;
  /** Finds what keeps one from being read back; null where nothing does. */
  check(named: Named): string | null;
  /** Never throws. */
  read(text: string): { all: Named[] } | { problem: string };
  /** Reads each by itself, and leaves out those that cannot be read. Never throws. */
  readEach(text: string): { all: Named[]; isWhole: boolean };
}

/** @param format says in the file what it is. @param key that they lie under in it. */
export function namedFile<Named extends { name: string }>(
  format: string,
  key: string,
  schema: z.ZodType<Named>,
): NamedFile<Named> {
  const outerSchema = z.object({ [key]: z.array(z.unknown()) });
  const fileSchema = z.object({
    format: z.literal(format),
    schemaVersion: z.literal(1),
    [key]: z.array(schema),
  });
  return {
    write: (all) => `${JSON.stringify({ format, schemaVersion: 1, [key]: all }, null, 2)}\n`,
    check(named) {
      const { error } = schema.safeParse(named);
      return error ? describeProblem(error) : null;
    },
    read(text) {
      try {
        const read = fileSchema.safeParse(JSON.parse(text));
        if (read.success) return { all: (read.data as unknown as Record<string, Named[]>)[key] ?? [] };
        return { problem: describeProblem(read.error, 'the file') };
      } catch (error) {
        return { problem: error instanceof Error ? error.message : 'not JSON' };
      }
    },
    readEach(text) {
      try {
        const items = outerSchema.parse(JSON.parse(text))[key] ?? [];
        const all = items.flatMap((item) => schema.safeParse(item).data ?? []);
        return { all, isWhole: all.length === items.length };
      } catch {
        return { all: [], isWhole: false };
      }
    },
  };
}

/** A name that a person gives. */
export const givenName = z.string().trim().min(1).max(60);

/** Things with some more; one of a name that is there takes its place. */
export function withNamed<Named extends { name: string }>(
  known: readonly Named[],
  added: readonly Named[],
): Named[] {
  const names = new Set(added.map(({ name }) => name));
  return [...known.filter(({ name }) => !names.has(name)), ...added];
}
