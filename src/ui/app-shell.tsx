import { type ReactNode, useEffect } from 'react';
import { GestureHandlerRootView } from 'react-native-gesture-handler';
import { PaperProvider } from 'react-native-paper';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { openApp } from '@state/app';
import { AppNotices } from './app-notices';
import { PaperIcon } from './parts/paper-icon';
import { useControlKeys } from './parts/use-control-keys';
import { useAppFonts } from './theme/load-fonts';
import { createPaperTheme } from './theme/paper-theme';
import { useScheme } from './theme/use-scheme';

/** Shell of the whole app: fonts, theme, and the stored jobs. */
export function AppShell({ children }: { children: ReactNode }) {
  const ready = useAppFonts();
  const scheme = useScheme();
  useEffect(() => void openApp(), []);
  useControlKeys();
  return (
    <GestureHandlerRootView style={{ flex: 1 }}>
      <SafeAreaProvider>
        <PaperProvider theme={createPaperTheme(scheme)} settings={{ icon: PaperIcon }}>
          {ready && <AppNotices />}
          {ready && children}
        </PaperProvider>
      </SafeAreaProvider>
    </GestureHandlerRootView>
  );
}
