import { z } from 'zod';
import { repairsSchema } from '../../master/repairs';
import { rateChangeSchema, retimeEdit } from '../retime';
import { command } from './command';

/** Commands that set something right about a master. */
export const MASTER_COMMANDS = {
  'set-repairs': command({
    schema: z.object({
      master: z.string(),
      repairs: repairsSchema,
      rates: rateChangeSchema,
    }),
    label: 'repair the master',
    apply(edit, { master, repairs, rates }) {
      const repaired = { ...edit, repairs: { ...edit.repairs, [master]: repairs } };
      return retimeEdit(repaired, master, rates);
    },
  }),
};
