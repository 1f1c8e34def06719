import { type ReactNode, useState } from 'react';
import { ScrollView, StyleSheet, useWindowDimensions, View } from 'react-native';
import { colours, space } from '../theme/tokens';
import { PageRoom } from './page-room';
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

/** The most of the page's height that the tray takes; past that it is scrolled. */
const MAX_TRAY = 0.55;

/** A page: title on top, what it is about in the middle, the working controls in a tray below. */
export function Screen({ title, subtitle, leading, trailing, tray, children }: Props) {
  const [room, setRoom] = useState(0);
  const { height } = useWindowDimensions();
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
      <ScrollView
        role="main"
        style={styles.scroll}
        contentContainerStyle={styles.content}
        onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.height)}
      >
        <PageRoom.Provider value={room}>{children}</PageRoom.Provider>
      </ScrollView>
      {tray !== undefined && (
        <ScrollView
          style={[styles.tray, { maxHeight: height * MAX_TRAY }]}
          contentContainerStyle={styles.controls}
        >
          {tray}
        </ScrollView>
      )}
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
    flexGrow: 0,
    borderTopWidth: 1,
    borderColor: colours.hairline,
    backgroundColor: colours.sheet,
  },
  controls: { padding: space.m, gap: space.m },
});
