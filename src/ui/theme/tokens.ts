import { Platform } from 'react-native';
import { type Palette, PALETTES, toCssVariable } from './palettes';

/** On the web each colour is a variable of the page's style sheet, which knows the theme; elsewhere the light one. */
export const colours: Palette =
  Platform.OS === 'web'
    ? (Object.fromEntries(
        Object.keys(PALETTES.light).map((name) => [name, `var(${toCssVariable(name)})`]),
      ) as Palette)
    : PALETTES.light;

export const fonts = {
  text: 'AtkinsonHyperlegible_400Regular',
  strong: 'AtkinsonHyperlegible_700Bold',
  title: 'Fraunces_600SemiBold',
  figures: 'DMMono_400Regular',
} as const;

/** Of letters, in pixels. For a field with letters under 16 phones enlarge the page. */
export const sizes = { small: 13, body: 15, field: 16, lead: 17, title: 22, head: 28 } as const;

/** Distances, in pixels. */
export const space = { xs: 4, s: 8, m: 12, l: 16, xl: 24 } as const;

/** Least side of anything that is touched, in pixels. */
export const TARGET = 44;

/** From this width on the job sheet stays at the left. */
export const WIDE = 900;

/** A sheet of paper on the page: what cards and panels are. */
export const card = {
  backgroundColor: colours.sheet,
  borderWidth: 1,
  borderColor: colours.hairline,
  borderRadius: 6,
} as const;
