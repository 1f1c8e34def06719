import { setting } from '../setting';

const CHOICES = ['device', 'light', 'dark'] as const;
/** The theme of the device, or one that the person chose. */
export type ThemeChoice = (typeof CHOICES)[number];

export const theme = setting<ThemeChoice>(
  'theme',
  'device',
  (stored) => CHOICES.find((known) => known === stored) ?? null,
);
