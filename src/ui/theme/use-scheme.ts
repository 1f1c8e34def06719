import { useEffect } from 'react';
import { Platform, useColorScheme } from 'react-native';
import { theme } from '@state/app';
import type { Scheme } from './palettes';

/** The theme that is on screen; the page's style sheet is told of a choice. */
export function useScheme(): Scheme {
  const choice = theme.use((state) => state.value);
  const device = useColorScheme();
  useEffect(() => {
    if (Platform.OS !== 'web') return;
    if (choice === 'device') document.documentElement.removeAttribute('data-theme');
    else document.documentElement.setAttribute('data-theme', choice);
  }, [choice]);
  if (choice !== 'device') return choice;
  return device === 'dark' ? 'dark' : 'light';
}
