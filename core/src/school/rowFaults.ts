/** Why a row of a class list cannot be used. A code is public once shipped. */
export const ROW_FAULTS = [
  'more-columns',
  'no-name',
  'no-first-name',
  'name-too-long',
  'name-unreadable',
  'no-class',
  'unknown-class',
  'number-twice',
  'number-elsewhere',
  'no-sourced-id',
  'no-given-name',
  'unlisted-class',
  /** Of lists read before reasons were codes. */
  'unusable',
] as const
export type RowFault = (typeof ROW_FAULTS)[number]
