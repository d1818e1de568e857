import { createContext, useContext } from 'react';
import { MD3LightTheme, MD3DarkTheme, type MD3Theme, configureFonts } from 'react-native-paper';

/** The colours of the look, light and dark. Every text pair is checked against WCAG 2.2 AA in theme.test.ts. */
export const LIGHT = {
  paper: '#F7F4EC',
  sheet: '#FFFDF7',
  ink: '#1E2A2B',
  faint: '#5A6766',
  rule: '#DAD4C5',
  petrol: '#1F5A5E',
  rowan: '#B8432F',
  ochre: '#8F6212',
  heather: '#6F4E7C',
  lichen: '#55702F',
  lit: '#C9DDD8',
};
export type Colours = typeof LIGHT;

export const DARK: Colours = {
  paper: '#141B1C',
  sheet: '#1B2526',
  ink: '#E8E4D8',
  faint: '#9DAAA7',
  rule: '#2F3B3C',
  petrol: '#7FB9B8',
  rowan: '#E58A74',
  ochre: '#D9AE5E',
  heather: '#BFA0CB',
  lichen: '#A9C07F',
  lit: '#2E4F50',
};

export const SIZES = { tiny: 13, small: 15, body: 17, large: 21, title: 27 } as const;
export type Size = keyof typeof SIZES;

export const FONTS = {
  face: 'AtkinsonHyperlegible_400Regular',
  faceBold: 'AtkinsonHyperlegible_700Bold',
  text: 'Literata_400Regular',
  textBold: 'Literata_600SemiBold',
} as const;

/** Touch targets are at least this high and wide. */
export const TOUCH = 48;
export const WIDE_FROM = 900;
export const READING_WIDTH = 652;

/** React Native Paper's theme in our tokens, so that its parts do not look like stock. */
export function paperTheme(colours: Colours, isDark: boolean): MD3Theme {
  const base = isDark ? MD3DarkTheme : MD3LightTheme;
  return {
    ...base,
    roundness: 1,
    fonts: configureFonts({ config: { fontFamily: FONTS.face, letterSpacing: 0 } }),
    colors: {
      ...base.colors,
      primary: colours.petrol,
      onPrimary: colours.sheet,
      primaryContainer: colours.lit,
      onPrimaryContainer: colours.ink,
      secondaryContainer: colours.lit,
      onSecondaryContainer: colours.ink,
      background: colours.paper,
      onBackground: colours.ink,
      surface: colours.sheet,
      surfaceVariant: colours.paper,
      onSurface: colours.ink,
      onSurfaceVariant: colours.faint,
      outline: colours.faint,
      outlineVariant: colours.rule,
      error: colours.rowan,
      inverseSurface: colours.ink,
      inverseOnSurface: colours.sheet,
      inversePrimary: isDark ? LIGHT.petrol : DARK.petrol,
      elevation: {
        level0: 'transparent',
        level1: colours.sheet,
        level2: colours.sheet,
        level3: colours.sheet,
        level4: colours.sheet,
        level5: colours.sheet,
      },
    },
  };
}

export const ColourContext = createContext<Colours>(LIGHT);
export const useColours = (): Colours => useContext(ColourContext);
