import { createHash } from 'node:crypto'
import { Agent } from 'node:http'
import { DefaultHttpStack, Upload } from 'tus-js-client'
import { v7 as newId } from 'uuid'

const BROWSER = 'bench'

/** @returns the cookie of the school's owner */
export async function signIn(at: string): Promise<string> {
  const response = await fetch(`${at}/api/accounts/sign-in/password`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', Origin: at, 'User-Agent': BROWSER },
    body: JSON.stringify({ email: 'a@saltmarsh.example', password: 'a long enough password' }),
  })
  if (!response.ok) throw new Error(`the bench could not sign in: ${response.status}`)
  return response.headers
    .getSetCookie()
    .map((set) => set.split(';')[0])
    .join('; ')
}

const httpStack = new DefaultHttpStack({ agent: new Agent({ keepAlive: false }) })

export const sha256 = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex')

/** Sends a file as a tablet does. @returns the hash the server confirms */
export const upload = (at: string, cookie: string, photo: Buffer, hash: string): Promise<string> =>
  new Promise((resolve, reject) => {
    new Upload(photo, {
      endpoint: `${at}/api/media/uploads`,
      metadata: { mediaId: newId(), filename: 'photo.jpg', sha256: hash },
      headers: { Cookie: cookie, Origin: at, 'User-Agent': BROWSER },
      retryDelays: [100, 500, 1000],
      httpStack,
      onSuccess: ({ lastResponse }) =>
        resolve((JSON.parse(lastResponse.getBody()) as { sentSha256: string }).sentSha256),
      onError: reject,
    }).start()
  })
