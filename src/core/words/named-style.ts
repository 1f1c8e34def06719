import { z } from 'zod';
import { givenName, namedFile } from '../figures/named-file';
import { textStyleSchema } from './text-style';

/** How words look, under a name. */
const namedStyleSchema = z.object({ name: givenName, style: textStyleSchema });

/** Styles as a JSON file. */
export const stylesFile = namedFile('gusset-text-styles', 'styles', namedStyleSchema);
