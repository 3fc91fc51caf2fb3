/** A script: how to know its signs, and the typeface they are set in. */
export type Script = {
  name: string
  pattern: RegExp
  /** The typeface's package, where it is not `noto-sans-` and the name. */
  face?: string
  /** The part of that typeface, where it is not called like the script. */
  part?: string
  fromRight?: true
  /** Its letters are small for their size: set so many times larger, they stand beside ours. */
  larger?: number
}

/**
 * Scripts names are written in beside our own letters, in the order they are tried: Chinese signs
 * stand in Japanese names as well.
 */
export const SCRIPTS = [
  { name: 'greek', pattern: /\p{Script=Greek}/u, face: 'noto-sans' },
  { name: 'arabic', pattern: /\p{Script=Arabic}/u, fromRight: true, larger: 1.25 },
  { name: 'hebrew', pattern: /\p{Script=Hebrew}/u, fromRight: true },
  { name: 'devanagari', pattern: /\p{Script=Devanagari}/u },
  { name: 'bengali', pattern: /\p{Script=Bengali}/u },
  { name: 'gurmukhi', pattern: /\p{Script=Gurmukhi}/u },
  { name: 'gujarati', pattern: /\p{Script=Gujarati}/u },
  { name: 'tamil', pattern: /\p{Script=Tamil}/u },
  { name: 'telugu', pattern: /\p{Script=Telugu}/u },
  { name: 'kannada', pattern: /\p{Script=Kannada}/u },
  { name: 'malayalam', pattern: /\p{Script=Malayalam}/u },
  { name: 'sinhala', pattern: /\p{Script=Sinhala}/u },
  { name: 'thai', pattern: /\p{Script=Thai}/u },
  { name: 'georgian', pattern: /\p{Script=Georgian}/u },
  { name: 'armenian', pattern: /\p{Script=Armenian}/u },
  { name: 'ethiopic', pattern: /\p{Script=Ethiopic}/u },
  { name: 'korean', pattern: /\p{Script=Hangul}/u, face: 'noto-sans-kr' },
  {
    name: 'japanese',
    pattern: /[\p{Script=Hiragana}\p{Script=Katakana}ー]/u,
    face: 'noto-sans-jp',
  },
  { name: 'chinese', pattern: /\p{Script=Han}/u, face: 'noto-sans-sc', part: 'chinese-simplified' },
  { name: 'cyrillic', pattern: /\p{Script=Cyrillic}/u, face: 'noto-sans' },
] as const satisfies readonly Script[]
export type ScriptName = (typeof SCRIPTS)[number]['name']

/** The package of a script's typeface. */
export const faceOf = ({ name, face }: Script): string => face ?? `noto-sans-${name}`

/** Most texts are in none of them: a quick look before the others. */
const PERHAPS = /[\u0370-\u1dff\u2c80-\uffdc]/

/** @returns the scripts that occur in a text, besides Latin */
export const scriptsIn = (text: string): ScriptName[] =>
  PERHAPS.test(text)
    ? SCRIPTS.filter(({ pattern }) => pattern.test(text)).map(({ name }) => name)
    : []
