import type { PropsWithChildren } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { space } from '../theme/tokens';

/** Tools side by side, scrolled by hand where there is no room for all. */
export function ToolRow({ children }: PropsWithChildren) {
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} contentContainerStyle={styles.row}>
      {children}
    </ScrollView>
  );
}

const styles = StyleSheet.create({ row: { gap: space.xs, alignItems: 'center' } });
