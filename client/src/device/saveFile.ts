import { problemFrom, UnreachableError } from '../api/problems'

/** Fetches a file of the server's and hands it to the browser's downloads. @throws ProblemError, UnreachableError */
export async function saveFile(address: string, name: string): Promise<void> {
  const response = await fetch(address, { credentials: 'same-origin' }).catch((error: unknown) => {
    throw new UnreachableError(String(error))
  })
  if (!response.ok) throw await problemFrom(response)
  const url = URL.createObjectURL(await response.blob())
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  // The download has its own hold on the content by then.
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
