import { create } from 'zustand';
import { loadSetting, saveSetting } from './store/storage';

const SETTING = 'theme';
const CHOICES = ['device', 'light', 'dark'] as const;
/** The theme of the device, or one that the person chose. */
export type ThemeChoice = (typeof CHOICES)[number];

export const useTheme = create<{ choice: ThemeChoice }>(() => ({ choice: 'device' }));

/** Reads the choice of an earlier visit. */
export async function openTheme(): Promise<void> {
  const stored = await loadSetting(SETTING);
  const choice = CHOICES.find((known) => known === stored);
  if (choice) useTheme.setState({ choice });
}

export function chooseTheme(choice: ThemeChoice): void {
  useTheme.setState({ choice });
  saveSetting(SETTING, choice).catch((error: unknown) =>
    console.error('the theme could not be stored', error),
  );
}
