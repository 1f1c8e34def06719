import type { OwnWords } from '@core/job/clip';
import { fillTemplate, TEMPLATE_PARTS, withTags } from '@core/job/word-presets';
import { tagSets, templates } from '@state/words';
import { useClip, useJob } from '../job/job-context';
import { useTarget } from '../job/use-target';
import { Fold } from '../parts/fold';
import { NamedList } from '../parts/named-list';
import { useNow } from '../parts/use-now';
import { Soft } from '../parts/words';

/** Sets of tags under names. */
export function SavedTags({ tags, onTake }: { tags: readonly string[]; onTake: (tags: string[]) => void }) {
  return (
    <Fold title="Sets of tags">
      <NamedList
        store={tagSets}
        one="set"
        many="sets"
        detail={(set) => set.tags.map((tag) => `#${tag}`).join(' ')}
        take={{ label: 'Add', act: (set) => onTake(set.tags) }}
        onSave={tags.length === 0 ? null : (name) => tagSets.save({ name, tags: withTags([], tags) })}
      />
      {tags.length === 0 && <Soft>Add tags above to save them as a set.</Soft>}
    </Fold>
  );
}

/** Words with parts in braces under names: filled from the clip as they are taken. */
export function Templates({ words, onTake }: { words: OwnWords; onTake: (filled: OwnWords) => void }) {
  const job = useJob();
  const clip = useClip();
  const { sheet } = useTarget();
  const day = useNow().toISOString();
  return (
    <Fold title="Templates">
      <Soft>
        {`Write the words above as they should always be, with parts in braces, and save them: ${Object.entries(
          TEMPLATE_PARTS,
        )
          .map(([part, about]) => `{${part}} is ${about}`)
          .join('; ')}.`}
      </Soft>
      <NamedList
        store={templates}
        one="template"
        many="templates"
        detail={({ title, description }) => [title, description].filter(Boolean).join(' / ')}
        take={{
          label: 'Fill in',
          act: (template) => onTake(fillTemplate(template, { job, clip, outlet: sheet.name, day })),
        }}
        onSave={(name) => {
          const { title, description, tags } = words;
          return templates.save({ name, title, description, tags });
        }}
      />
    </Fold>
  );
}
