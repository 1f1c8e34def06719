import { z } from 'zod';
import { givenName, namedFile } from '../figures/named-file';
import { canvasSizeSchema, type Canvas } from '../layout/canvas';
import { findPlacement } from '../outlets/outlets';
import type { Sheets } from '../outlets/rule-sheet';
import { toSheetMark } from '../outlets/sheet-mark';
import { type Encoding, encodingSchema } from '../rate/encoding';

/** How files are made, under a name: for a size, and perhaps for a placement whose sheet it was made by. */
const exportPresetSchema = canvasSizeSchema.extend({
  name: givenName,
  placement: z.string().nullable(),
  /** Version of the placement's sheet then. */
  sheet: z.string().nullable(),
  encoding: encodingSchema,
});
export type ExportPreset = z.infer<typeof exportPresetSchema>;

/** Presets as a JSON file. */
export const exportPresetsFile = namedFile('gusset-export-presets', 'presets', exportPresetSchema);

/** A name with the size that it is for: `Feed 1080×1350`. */
function presetName(name: string, { width, height }: Pick<Canvas, 'width' | 'height'>): string {
  const size = `${width}×${height}`;
  return name.includes(size) ? name : `${name.slice(0, 59 - size.length)} ${size}`.trim();
}

/** A preset of how a canvas's file is made. */
export function exportPreset(
  name: string,
  { width, height, placement }: Pick<Canvas, 'width' | 'height' | 'placement'>,
  encoding: Encoding,
  sheets: Sheets,
): ExportPreset {
  return {
    name: presetName(name, { width, height }),
    width,
    height,
    placement,
    sheet: findVersion(placement, sheets),
    encoding,
  };
}

/** Tells whether the sheet that a preset was made by says something else now, or is gone. */
export const isOutdated = ({ placement, sheet }: ExportPreset, sheets: Sheets): boolean =>
  placement !== null && findVersion(placement, sheets) !== sheet;

/** Finds the mark of a placement's sheet; null where there is none. */
function findVersion(placement: string | null, sheets: Sheets): string | null {
  const found = placement === null ? null : findPlacement(sheets, placement);
  return found && toSheetMark(found.sheet).version;
}
