import { tagSetsFile, templatesFile } from '@core/job/word-presets';
import { namedStore } from '../named-store';

/** Words with parts in braces, to write posts from. */
export const templates = namedStore('templates', 'gusset-templates.json', 'templates', templatesFile);

/** Tags that go together. */
export const tagSets = namedStore('tag-sets', 'gusset-tags.json', 'sets of tags', tagSetsFile);
