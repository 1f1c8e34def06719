import { boundedInt, MAX_COUNT } from '../../figures/bounded';
import { countCharacters } from '../characters';
import { numberField } from './field';
import { declareLimit } from './limit';

/** Judges a title. Spaces around it do not count. */
export function judgeTitle(
  title: string,
  { words }: { words: { title: number } },
): 'missing' | 'over' | null {
  const length = countCharacters(title.trim());
  if (length === 0) return 'missing';
  return length > words.title ? 'over' : null;
}

/** Limit on the title: it is there, and not too long. */
export const titleLimit = declareLimit({
  name: 'title',
  shape: { words: { title: boundedInt(1, MAX_COUNT) } },
  plain: { words: { title: 1000 } },
  section: 'Words',
  fields: [{ path: 'words.title', label: 'Title', as: numberField('characters') }],
  refusePost({ title }, placement) {
    const broken = judgeTitle(title, placement);
    if (broken === 'missing') return 'The post has no title.';
    return broken && `The title has over ${placement.words.title} characters.`;
  },
});
