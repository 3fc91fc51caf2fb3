/** Every message stretched and marked: shows what was never worded, and what has no room to grow. */
export const PSEUDO = 'en-XA'
const OURS = ['en-GB', PSEUDO]

/** The language of this page, for words, dates and numbers: the browser's own where we have it. */
export const LANGUAGE: string =
  (typeof navigator === 'undefined' ? [] : (navigator.languages ?? [])).find((one) =>
    OURS.includes(one),
  ) ?? OURS[0]!
