import type { ReactNode } from 'react';
import { StyleSheet, Text, type TextProps } from 'react-native';
import { colours, fonts, sizes } from '../theme/tokens';

type Props = TextProps & { children: ReactNode };

/** Running text. */
export const Body = ({ style, ...rest }: Props) => <Text {...rest} style={[styles.body, style]} />;
/** Text that matters less. */
export const Soft = ({ style, ...rest }: Props) => <Text {...rest} style={[styles.soft, style]} />;
/** The name of a thing. */
export const Strong = ({ style, ...rest }: Props) => <Text {...rest} style={[styles.strong, style]} />;
/** Timecode and figures, all digits as wide as each other. */
export const Figures = ({ style, ...rest }: Props) => <Text {...rest} style={[styles.figures, style]} />;
/** A page's title. */
export const Title = ({ style, ...rest }: Props) => (
  <Text role="heading" aria-level={1} {...rest} style={[styles.title, style]} />
);
/** The title of a part of a page. */
export const Heading = ({ style, ...rest }: Props) => (
  <Text role="heading" aria-level={2} {...rest} style={[styles.heading, style]} />
);

const styles = StyleSheet.create({
  body: { fontFamily: fonts.text, fontSize: sizes.body, lineHeight: 21, color: colours.ink },
  soft: { fontFamily: fonts.text, fontSize: sizes.small, lineHeight: 18, color: colours.softInk },
  strong: { fontFamily: fonts.strong, fontSize: sizes.body, lineHeight: 20, color: colours.ink },
  figures: { fontFamily: fonts.figures, fontSize: sizes.body, lineHeight: 20, color: colours.ink },
  title: { fontFamily: fonts.title, fontSize: sizes.title, lineHeight: 28, color: colours.ink },
  heading: { fontFamily: fonts.strong, fontSize: sizes.lead, lineHeight: 24, color: colours.ink },
});
