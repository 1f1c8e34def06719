import { z } from 'zod';
import { cutSchema } from '../../cut/cut';
import { listActs, command, withClip } from './command';

const ACTS = {
  'in-point': 'set the in point',
  'out-point': 'set the out point',
  trim: 'trim the cut',
  split: 'split a range',
  remove: 'remove a range',
  move: 'move a range',
  slip: 'slip a range',
  roll: 'move a cut between ranges',
  add: 'add a range',
  fit: 'fit to a length',
  list: 'use a cut list',
};

/** Commands on the cut. */
export const CUT_COMMANDS = {
  'set-cut': command({
    schema: z.object({ act: z.enum(listActs(ACTS)), cut: cutSchema }),
    label: ACTS,
    apply: (edit, { cut }) => withClip(edit, (clip) => ({ ...clip, cut })),
  }),
};
