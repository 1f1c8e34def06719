import { z } from 'zod';
import { boundedInt, MAX_COUNT } from '../../figures/bounded';
import { countCharacters } from '../characters';
import { numberField } from './field';
import { declareLimit } from './limit';

/** Judges a description. */
export const judgeDescription = (
  description: string,
  { words }: { words: { description: { most: number } } },
): 'over' | null => (countCharacters(description) > words.description.most ? 'over' : null);

/** Limit on the characters of a description. */
export const descriptionLimit = declareLimit({
  name: 'description',
  shape: {
    words: {
      description: z.object({
        most: boundedInt(1, MAX_COUNT),
        /** Characters that are seen before a reader unfolds it. */
        seen: boundedInt(1, MAX_COUNT),
      }),
    },
  },
  plain: { words: { description: { most: 10_000, seen: 10_000 } } },
  section: 'Words',
  fields: [
    { path: 'words.description.most', label: 'Description', as: numberField('characters') },
    { path: 'words.description.seen', label: 'Seen of it at first', as: numberField('characters') },
  ],
  refusePost: ({ description }, placement) =>
    judgeDescription(description, placement) &&
    `The description has over ${placement.words.description.most} characters.`,
});
