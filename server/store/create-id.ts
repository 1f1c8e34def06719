import { randomBytes } from 'node:crypto';
import { parseRandomId, type RandomId } from '../../src/core/figures/random-id';

/** Creates an id that nobody can guess. */
export const createId = (): RandomId => parseRandomId(randomBytes(16).toString('hex'));
