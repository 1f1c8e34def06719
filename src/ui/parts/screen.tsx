import type { ReactNode } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { colours, space } from '../theme/tokens';
import { Soft, Title } from './words';

interface Props {
  title: string;
  subtitle?: string;
  /** Left of the title: the way back. */
  leading?: ReactNode;
  /** Right of the title. */
  trailing?: ReactNode;
  /** Stays in reach of the thumb below the page. */
  tray?: ReactNode;
  children: ReactNode;
}

/** A page: title on top, what it is about in the middle, the working controls in a tray below. */
export function Screen({ title, subtitle, leading, trailing, tray, children }: Props) {
  return (
    <View style={styles.page}>
      <View role="banner" style={styles.head}>
        {leading}
        <View style={styles.names}>
          <Title numberOfLines={2}>{title}</Title>
          {subtitle !== undefined && <Soft numberOfLines={1}>{subtitle}</Soft>}
        </View>
        {trailing}
      </View>
      <ScrollView role="main" style={styles.scroll} contentContainerStyle={styles.content}>
        {children}
      </ScrollView>
      {tray !== undefined && <View style={styles.tray}>{tray}</View>}
    </View>
  );
}

const styles = StyleSheet.create({
  page: { flex: 1, backgroundColor: colours.paper },
  head: {
    flexDirection: 'row',
    alignItems: 'center',
    minHeight: 60,
    paddingHorizontal: space.m,
    paddingVertical: space.s,
    gap: space.s,
  },
  names: { flex: 1 },
  scroll: { flex: 1 },
  content: { paddingHorizontal: space.m, paddingBottom: space.l, gap: space.m, flexGrow: 1 },
  tray: {
    padding: space.m,
    gap: space.m,
    borderTopWidth: 1,
    borderColor: colours.hairline,
    backgroundColor: colours.sheet,
  },
});
