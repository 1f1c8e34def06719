import type { z } from 'zod';
import { givenName, namedFile } from '../figures/named-file';
import { canvasSchema } from './canvas';

/** A canvas to make again: its size, rate and layout under a name. */
const presetSchema = canvasSchema
  .pick({ placement: true, width: true, height: true, rate: true, layout: true })
  .extend({ name: givenName });
export type Preset = z.infer<typeof presetSchema>;

/** Presets as a JSON file. */
export const presetsFile = namedFile('gusset-presets', 'presets', presetSchema);
