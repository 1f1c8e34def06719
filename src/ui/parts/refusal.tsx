import { useEffect, useRef } from 'react';
import { StyleSheet, Text } from 'react-native';
import { colours, fonts, sizes } from '../theme/tokens';

/** Why something that was typed or picked is not taken; brought into view. */
export function RefusalNotice({ children }: { children: string }) {
  const text = useRef<Text>(null);
  useEffect(() => {
    // In a browser the text is an element: the reason must not stay below the edge of the page.
    (text.current as unknown as Partial<Element> | null)?.scrollIntoView?.({ block: 'nearest' });
  }, [children]);
  return (
    <Text ref={text} role="alert" style={styles.text}>
      {children}
    </Text>
  );
}

const styles = StyleSheet.create({
  text: { fontFamily: fonts.text, fontSize: sizes.small, lineHeight: 16, color: colours.madder },
});
