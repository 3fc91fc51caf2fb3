import type { Part, PartFile, PhotoPart } from '@nibquill/contract'

/** The photos among the parts of a piece, each with what is known of its file. */
export const photosOf = (parts: readonly Part[]): (PhotoPart & PartFile)[] =>
  parts.flatMap((part) => (part.kind === 'photo' ? [{ ...part, ...part.files.picture }] : []))
