import { configureFonts, MD3DarkTheme, MD3LightTheme, type MD3Theme } from 'react-native-paper';
import { PALETTES, type Scheme } from './palettes';
import { fonts } from './tokens';

const typescale = configureFonts({ config: { fontFamily: fonts.text } });
for (const name of ['labelLarge', 'titleMedium', 'titleSmall'] as const) {
  typescale[name] = { ...typescale[name], fontFamily: fonts.strong };
}

/** Paper components in our dyes. Paper reckons with its colours, so that it needs them as they are. */
export function createPaperTheme(scheme: Scheme): MD3Theme {
  const colours = PALETTES[scheme];
  const base = scheme === 'dark' ? MD3DarkTheme : MD3LightTheme;
  return {
    ...base,
    roundness: 2,
    fonts: typescale,
    colors: {
      ...base.colors,
      primary: colours.woad,
      onPrimary: colours.onDye,
      primaryContainer: colours.woadWash,
      onPrimaryContainer: colours.ink,
      secondary: colours.ink,
      onSecondary: colours.onDye,
      secondaryContainer: colours.woadWash,
      onSecondaryContainer: colours.ink,
      background: colours.paper,
      onBackground: colours.ink,
      surface: colours.sheet,
      onSurface: colours.ink,
      surfaceVariant: colours.sheet,
      onSurfaceVariant: colours.softInk,
      outline: colours.edge,
      outlineVariant: colours.hairline,
      error: colours.madder,
      onError: colours.onDye,
      errorContainer: colours.madderWash,
      onErrorContainer: colours.ink,
      surfaceDisabled: colours.disabled,
      onSurfaceDisabled: colours.softInk,
      // Menus and dialogs are sheets of paper: a shadow lifts them, not a tint.
      elevation: {
        ...base.colors.elevation,
        level1: colours.sheet,
        level2: colours.sheet,
        level3: colours.sheet,
        level4: colours.sheet,
        level5: colours.sheet,
      },
    },
  };
}
