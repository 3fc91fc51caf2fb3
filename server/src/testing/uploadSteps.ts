import { v7 as newId } from 'uuid'
import type { Person } from './testServer.ts'

/** What every request of an upload carries. */
export const TUS = { 'Tus-Resumable': '1.0.0' }

/** Says that a file of so many bytes is to come, without sending any. */
export function begin(
  person: Person,
  length: number,
  mediaId = newId(),
  sha256?: string,
): Promise<Response> {
  const about = Object.entries({ mediaId, ...(sha256 ? { sha256 } : {}) })
  const metadata = about
    .map(([name, value]) => `${name} ${Buffer.from(value).toString('base64')}`)
    .join(',')
  return person.fetch('POST', '/media/uploads', {
    headers: { ...TUS, 'Upload-Length': String(length), 'Upload-Metadata': metadata },
  })
}

/** @returns where the bytes of a begun upload go */
export const addressOf = (begun: Response): string =>
  begun.headers.get('location')!.replace('/api', '')

/** Sends bytes of a begun upload, those at `from` first. */
export const send = (
  person: Person,
  address: string,
  from: number,
  body: Uint8Array,
): Promise<Response> =>
  person.fetch('PATCH', address, {
    headers: {
      ...TUS,
      'Upload-Offset': String(from),
      'Content-Type': 'application/offset+octet-stream',
    },
    body: new Uint8Array(body),
  })
