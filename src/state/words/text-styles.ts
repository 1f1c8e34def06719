import { stylesFile } from '@core/words/named-style';
import { namedStore } from '../named-store';

/** Looks of words that a person named. */
export const textStyles = namedStore('text-styles', 'gusset-text-styles.json', 'text styles', stylesFile);
