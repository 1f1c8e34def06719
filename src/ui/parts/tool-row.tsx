import { type PropsWithChildren, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import Svg, { Defs, LinearGradient, Rect, Stop } from 'react-native-svg';
import { colours, space } from '../theme/tokens';

/** Width of the edge that fades where there is more, in pixels. */
const FADE = 28;

/** Things side by side, scrolled by hand where there is no room for all; an edge past which there is more fades. */
export function ToolRow({ children, gap = space.xs }: PropsWithChildren<{ gap?: number }>) {
  const [room, setRoom] = useState(0);
  const [content, setContent] = useState(0);
  const [scrolled, setScrolled] = useState(0);
  return (
    <View style={styles.area}>
      <ScrollView
        horizontal
        showsHorizontalScrollIndicator={false}
        contentContainerStyle={[styles.row, { gap }]}
        onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)}
        onContentSizeChange={(width) => setContent(width)}
        onScroll={({ nativeEvent }) => setScrolled(nativeEvent.contentOffset.x)}
        scrollEventThrottle={50}
      >
        {children}
      </ScrollView>
      {scrolled > 1 && <Fade side="left" />}
      {room > 0 && content - room - scrolled > 1 && <Fade side="right" />}
    </View>
  );
}

function Fade({ side }: { side: 'left' | 'right' }) {
  const [from, to] = side === 'left' ? [1, 0] : [0, 1];
  return (
    <View
      aria-hidden
      pointerEvents="none"
      style={[styles.fade, side === 'left' ? styles.left : styles.right]}
    >
      <Svg width={FADE} height="100%">
        <Defs>
          <LinearGradient id={`fade-${side}`} x1="0" y1="0" x2="1" y2="0">
            <Stop offset="0" stopColor={colours.sheet} stopOpacity={from} />
            <Stop offset="1" stopColor={colours.sheet} stopOpacity={to} />
          </LinearGradient>
        </Defs>
        <Rect x={0} y={0} width={FADE} height="100%" fill={`url(#fade-${side})`} />
      </Svg>
    </View>
  );
}

const styles = StyleSheet.create({
  area: { minWidth: 0 },
  row: { alignItems: 'center' },
  fade: { position: 'absolute', top: 0, bottom: 0, width: FADE },
  left: { left: 0 },
  right: { right: 0 },
});
