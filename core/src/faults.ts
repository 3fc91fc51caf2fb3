/**
 * What can be wrong with one thing somebody sent, each as the rest of a sentence that begins with
 * `It`, in ICU's message syntax. A code is public once shipped.
 */
export const FAULTS = {
  empty: 'is empty',
  unusable: 'cannot be used like this',
  unkeepable: 'has characters that cannot be kept',
  'too-long': 'is longer than {limit, number} characters',
  'too-short': 'is shorter than {limit, number} characters',
  'too-many': 'is more than {limit, plural, one {#} other {#}}',
  'too-few': 'is less than {limit, plural, one {one} other {#}}',
  'not-a-time': 'is not a time like 15:00',
  'not-an-email': 'is not an e-mail address',
  'not-a-time-zone': 'is not a time zone we know',
  'for-nobody': 'is for nobody',
  'for-no-class': 'is for no class',
  'without-steps': 'asks for no step',
  'says-nothing': 'says nothing yet',
  'without-next-step': 'has to say what to do next',
  'leaves-nothing': 'leaves nothing of the photo',
  'not-an-address': 'is no address of a page in the web',
  'ends-before-it-starts': 'ends before it starts',
  'longer-than-a-year': 'is longer than a year and a half',
  'outside-the-year': 'lies outside the school year',
  overlaps: 'overlaps with another',
  'due-before-it-opens': 'is due before it opens',
  'shuts-before-it-opens': 'is not later than the opening time',
  'unknown-pupil': 'names a pupil who is in no class of this year',
  'pupil-twice': 'names a pupil twice',
  'unknown-class': 'names a class that is not in the next year',
  'pupil-left-out': 'leaves a pupil out',
  'damaged-place': 'is damaged. Begin at the top again',
} as const

export type FaultCode = keyof typeof FAULTS
/** A code, or a code and its number: `too-long:40`. */
export type Fault = FaultCode | `${FaultCode}:${number}`

/** A fault with its number, where its sentence has one. */
export const fault = (code: FaultCode, limit?: number): Fault =>
  limit === undefined ? code : `${code}:${limit}`

/** Reads what `fault` wrote; anything else is `unusable`. */
export function readFault(text: string): { code: FaultCode; limit: number } {
  const [code = '', limit = ''] = text.split(':')
  return Object.hasOwn(FAULTS, code)
    ? { code: code as FaultCode, limit: Number(limit) || 0 }
    : { code: 'unusable', limit: 0 }
}
