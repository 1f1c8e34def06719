import { z } from 'zod';
import { canvasSchema } from './canvas';

/** A canvas to make again: its size, rate and layout under a name. */
const presetSchema = canvasSchema
  .pick({ placement: true, width: true, height: true, rate: true, layout: true })
  .extend({ name: z.string().trim().min(1).max(60) });
export type Preset = z.infer<typeof presetSchema>;

const fileSchema = z.object({
  format: z.literal('gusset-presets'),
  schemaVersion: z.literal(1),
  presets: z.array(presetSchema),
});

/** Presets as a JSON file. */
export function writePresets(presets: readonly Preset[]): string {
  return `${JSON.stringify({ format: 'gusset-presets', schemaVersion: 1, presets }, null, 2)}\n`;
}

/** Presets of a JSON file, or what is wrong with it. */
export function readPresets(text: string): { presets: Preset[] } | { problem: string } {
  try {
    const read = fileSchema.safeParse(JSON.parse(text));
    if (read.success) return { presets: read.data.presets };
    const issue = read.error.issues[0];
    return { problem: `${issue?.path.join('.') || 'the file'}: ${issue?.message}` };
  } catch (error) {
    return { problem: error instanceof Error ? error.message : 'not JSON' };
  }
}

/** Presets with some more; one of a name that is there takes its place. */
export function withPresets(known: readonly Preset[], added: readonly Preset[]): Preset[] {
  const names = new Set(added.map((preset) => preset.name));
  return [...known.filter((preset) => !names.has(preset.name)), ...added];
}
