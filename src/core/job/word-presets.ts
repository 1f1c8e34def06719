import { z } from 'zod';
import { bracesProblem, fillBraces } from '../figures/in-braces';
import { givenName, namedFile } from '../figures/named-file';
import { MAX_WORDS_UNITS, tagsSchema } from '../outlets/post-form';
import { type Clip, clipName, type OwnWords } from './clip';
import type { Job } from './job';

/** Parts in braces that a template may hold, with the meaning of each. */
export const TEMPLATE_PARTS = {
  clip: 'the clip’s title',
  part: 'which part it is, “2 of 4”',
  job: 'the job’s title',
  outlet: 'the outlet’s name',
  video: 'the address of the long video',
  key: 'the key phrase',
  day: 'the day, as 2026-11-30',
} as const;
type TemplatePart = keyof typeof TEMPLATE_PARTS;

const text = (most: number) =>
  z
    .string()
    .max(most)
    .superRefine((value, context) => {
      const problem = bracesProblem(value, TEMPLATE_PARTS);
      if (problem !== null) context.addIssue(problem);
    });

/** Words with parts in braces, under a name. */
const templateSchema = z.object({
  name: givenName,
  title: text(MAX_WORDS_UNITS.title),
  description: text(MAX_WORDS_UNITS.description),
  tags: tagsSchema,
});
export type WordTemplate = z.infer<typeof templateSchema>;
/** Templates as a JSON file. */
export const templatesFile = namedFile('gusset-templates', 'templates', templateSchema);

/** Tags that go together, under a name. */
const tagSetSchema = z.object({ name: givenName, tags: tagsSchema.min(1) });
/** Sets of tags as a JSON file. */
export const tagSetsFile = namedFile('gusset-tags', 'sets', tagSetSchema);

/** Tags with those of a set that are not there yet. */
export const withTags = (tags: readonly string[], more: readonly string[]): string[] => [
  ...new Set([...tags, ...more]),
];

/** Fills a template for a clip at an outlet. @param day ISO 8601. */
export function fillTemplate(
  { title, description, tags }: Omit<WordTemplate, 'name'>,
  { job, clip, outlet, day }: { job: Pick<Job, 'title'>; clip: Clip; outlet: string; day: string },
): OwnWords {
  const parts: Record<TemplatePart, () => string> = {
    clip: () => clipName({ name: clip.name, part: null }),
    part: () => (clip.part ? `${clip.part.number} of ${clip.part.of}` : ''),
    job: () => job.title,
    outlet: () => outlet,
    video: () => clip.words.longVideo ?? '',
    key: () => clip.words.keyPhrase ?? '',
    day: () => day.slice(0, 10),
  };
  const fill = (template: string) =>
    fillBraces(template, parts)
      .replace(/[^\S\n]{2,}/g, ' ')
      .trim();
  return { title: fill(title), description: fill(description), tags };
}
