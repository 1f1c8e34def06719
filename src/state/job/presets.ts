import type { Canvas } from '@core/layout/canvas';
import { presetsFile } from '@core/layout/preset';
import { exportPresetsFile } from '@core/job/export-preset';
import { namedStore } from '../named-store';

/** Canvases that a person named to make again. */
export const presets = namedStore('presets', 'gusset-presets.json', 'canvas presets', presetsFile);

/** Names a canvas to make again, without what belongs to one clip. */
export const savePreset = (
  name: string,
  { placement, width, height, rate, layout }: Canvas,
): Promise<string | null> => presets.save({ name, placement, width, height, rate, layout });

/** How files are made, under names that a person gave. */
export const exportPresets = namedStore(
  'export-presets',
  'gusset-export-presets.json',
  'export presets',
  exportPresetsFile,
);
