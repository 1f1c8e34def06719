import { z } from 'zod';
import { AUDIENCES, audienceSchema } from '../audience';
import { capitalize, listOptions } from './field';
import { declareLimit } from './limit';

/** Limit on the audiences of a post. */
export const audienceLimit = declareLimit({
  name: 'audience',
  shape: { audiences: z.array(audienceSchema).min(1) },
  plain: { audiences: ['private', 'unlisted', 'public'] },
  section: 'Post',
  fields: [
    {
      path: 'audiences',
      label: 'Who can see it',
      as: { kind: 'some', options: listOptions(AUDIENCES, capitalize) },
    },
  ],
  refusePost: ({ audience }, { audiences }) =>
    audiences.includes(audience) ? null : `A post cannot be ${audience} here.`,
});
