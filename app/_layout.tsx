import { Slot } from 'expo-router';
import { AppShell } from '@ui/app-shell';

export default function RootLayout() {
  return (
    <AppShell>
      <Slot />
    </AppShell>
  );
}
