import { create } from 'zustand';
import type { Canvas } from '@core/layout/canvas';
import { type Preset, readPresets, withPresets, writePresets } from '@core/layout/preset';
import { loadSetting, saveSetting } from './store/storage';

const SETTING = 'presets';

/** Canvases that a person named to make again, in this browser. */
export const usePresets = create<{ presets: Preset[] }>(() => ({ presets: [] }));

/** Reads the stored presets, once the app opens; damaged ones are left out. */
export async function openPresets(): Promise<void> {
  const read = readPresets((await loadSetting(SETTING)) ?? writePresets([]));
  if ('presets' in read) usePresets.setState({ presets: read.presets });
}

function keep(presets: Preset[]): void {
  usePresets.setState({ presets });
  void saveSetting(SETTING, writePresets(presets));
}

/** Names a canvas to make again; a preset of that name is replaced. */
export function savePreset(name: string, { placement, width, height, rate, layout }: Canvas): void {
  keep(withPresets(usePresets.getState().presets, [{ name, placement, width, height, rate, layout }]));
}

export function dropPreset(name: string): void {
  keep(usePresets.getState().presets.filter((preset) => preset.name !== name));
}

/** All presets as a file to keep or hand on. */
export function presetFile(): File {
  const text = writePresets(usePresets.getState().presets);
  return new File([text], 'gusset-presets.json', { type: 'application/json' });
}

/** Takes the presets of a file. @returns what is wrong with it, or null. */
export async function takePresetFile(file: File): Promise<string | null> {
  const read = readPresets(await file.text());
  if ('problem' in read) return read.problem;
  keep(withPresets(usePresets.getState().presets, read.presets));
  return null;
}
