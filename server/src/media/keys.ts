import { endingOf, type MediaForm } from '@nibquill/core'
import type { MediaRow } from './rows.ts'

type Stored = Pick<MediaRow, 'keptSha256' | 'type'>
/** Where a file itself lies. */
export const fullKey = (media: Stored): string => `${media.keptSha256}.${endingOf(media.type)}`
/** Where a form of it lies. @param ending - Of the form, without a dot. */
export const formKey = (
  media: Pick<MediaRow, 'keptSha256'>,
  form: MediaForm,
  ending: string,
): string => `${media.keptSha256}-${form}.${ending}`
