import { PIGMENTS, type PieceState } from '@nibquill/core'
import type { TextStyle, ViewStyle } from 'react-native'
import { configureFonts, type MD3Theme } from 'react-native-paper'

/** Ink, paper and pigments: the only home of colours, type and measures. */
export const colours = {
  paper: '#FBF7EE',
  desk: '#F1E8D6',
  sheet: '#FFFFFF',
  ink: '#2B2118',
  inkSoft: '#5E5146',
  rule: '#E5DCCB',
  /** What is written on. */
  writingPaper: '#FFFEFA',
  aubergine: '#54284F',
  aubergineTint: '#F1E6EF',
  ochre: '#B9741A',
  ochreText: '#8A5410',
  ochreTint: '#FBEBD0',
  verdigris: '#2A6F68',
  verdigrisTint: '#DDEFEC',
  clay: '#A9452F',
  clayTint: '#F8E2DB',
  sea: '#2F5E8C',
  seaTint: '#E1EAF4',
} as const

/** Pigments of pegs and folder spines. */
export const pigments = PIGMENTS

/**
 * Each state has its colour, and never the colour alone: the fold's shape and a word go with it.
 */
export const stateColours: Record<PieceState, { mark: string; text: string; tint: string }> = {
  draft: { mark: colours.rule, text: colours.inkSoft, tint: colours.desk },
  submitted: { mark: colours.ochre, text: colours.ochreText, tint: colours.ochreTint },
  returned: { mark: colours.clay, text: colours.clay, tint: colours.clayTint },
  approved: { mark: colours.verdigris, text: colours.verdigris, tint: colours.verdigrisTint },
}

/**
 * Each family comes as one file for plain Latin and one for the letters beyond; the browser takes
 * what a name needs. `Names` are those of other scripts (device/faces.ts).
 */
export const fonts = {
  read: 'Andika, AndikaExt, Names, sans-serif',
  strong: 'AndikaBold, AndikaBoldExt, NamesBold, sans-serif',
  title: 'YoungSerif, YoungSerifExt, NamesBold, serif',
} as const
/** A word under a thing: where its column is too narrow, it goes on below rather than being cut. */
export const ONE_WORD = {
  ...{ textAlign: 'center', overflowWrap: 'anywhere', hyphens: 'auto' },
  maxWidth: '100%',
} as TextStyle

/** Distances between things and around them, in px. */
export const space = {
  none: 0,
  hair: 2,
  tight: 4,
  close: 6,
  near: 8,
  apart: 12,
  clear: 16,
  far: 20,
  off: 32,
} as const
export const corners = { sheet: 6, button: 14, round: 999 } as const
export const shadow = { boxShadow: '0 2px 8px rgba(43, 33, 24, 0.12)' } as const
/** Paper with lines a hand's breadth of a child's letters apart, and words that stand on them. */
const LINE_PX = 36
export const RULED = {
  paper: {
    backgroundImage: `repeating-linear-gradient(transparent 0 ${LINE_PX - 2}px, ${colours.rule} ${LINE_PX - 2}px ${LINE_PX}px)`,
  } as ViewStyle,
  words: { fontFamily: fonts.read, fontSize: 20, lineHeight: LINE_PX, color: colours.ink },
} as const
/** Smallest things to tap, in px. */
export const targets = { pupil: 56, adult: 44 } as const

const typeface = (family: string) => ({
  fontFamily: family,
  fontWeight: 'normal' as const,
  letterSpacing: 0,
})
/** Every role of the widget library is named, so that none of its own colours shows. */
export const theme: MD3Theme = {
  dark: false,
  version: 3,
  isV3: true,
  animation: { scale: 1 },
  roundness: 3.5,
  fonts: configureFonts({
    config: {
      default: { ...typeface(fonts.read), fontSize: 16, lineHeight: 24 },
      displayLarge: { ...typeface(fonts.title), fontSize: 40, lineHeight: 48 },
      displayMedium: { ...typeface(fonts.title), fontSize: 34, lineHeight: 42 },
      displaySmall: { ...typeface(fonts.title), fontSize: 30, lineHeight: 38 },
      headlineLarge: { ...typeface(fonts.title), fontSize: 28, lineHeight: 36 },
      headlineMedium: { ...typeface(fonts.title), fontSize: 25, lineHeight: 33 },
      headlineSmall: { ...typeface(fonts.title), fontSize: 21, lineHeight: 28 },
      titleLarge: { ...typeface(fonts.strong), fontSize: 20, lineHeight: 27 },
      titleMedium: { ...typeface(fonts.strong), fontSize: 18, lineHeight: 25 },
      titleSmall: { ...typeface(fonts.strong), fontSize: 16, lineHeight: 22 },
      bodyLarge: { ...typeface(fonts.read), fontSize: 18, lineHeight: 27 },
      bodyMedium: { ...typeface(fonts.read), fontSize: 16, lineHeight: 24 },
      bodySmall: { ...typeface(fonts.read), fontSize: 15, lineHeight: 21 },
      labelLarge: { ...typeface(fonts.strong), fontSize: 17, lineHeight: 24 },
      labelMedium: { ...typeface(fonts.strong), fontSize: 15, lineHeight: 20 },
      labelSmall: { ...typeface(fonts.strong), fontSize: 14, lineHeight: 18 },
    },
  }),
  colors: {
    primary: colours.aubergine,
    onPrimary: colours.sheet,
    primaryContainer: colours.aubergineTint,
    onPrimaryContainer: colours.aubergine,
    secondary: colours.verdigris,
    onSecondary: colours.sheet,
    secondaryContainer: colours.aubergineTint,
    onSecondaryContainer: colours.aubergine,
    tertiary: colours.sea,
    onTertiary: colours.sheet,
    tertiaryContainer: colours.seaTint,
    onTertiaryContainer: colours.sea,
    error: colours.clay,
    onError: colours.sheet,
    errorContainer: colours.clayTint,
    onErrorContainer: colours.clay,
    background: colours.paper,
    onBackground: colours.ink,
    surface: colours.sheet,
    onSurface: colours.ink,
    surfaceVariant: colours.desk,
    onSurfaceVariant: colours.inkSoft,
    surfaceDisabled: colours.rule,
    onSurfaceDisabled: colours.inkSoft,
    outline: colours.inkSoft,
    outlineVariant: colours.rule,
    inverseSurface: colours.ink,
    inverseOnSurface: colours.paper,
    inversePrimary: colours.ochreTint,
    shadow: colours.ink,
    scrim: colours.ink,
    backdrop: 'rgba(43, 33, 24, 0.45)',
    elevation: {
      level0: 'transparent',
      level1: colours.sheet,
      level2: colours.sheet,
      level3: colours.sheet,
      level4: colours.sheet,
      level5: colours.sheet,
    },
  },
}
