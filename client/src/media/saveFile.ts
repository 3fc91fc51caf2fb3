import { problemFrom, UnreachableError } from '../kit/problems'

/**
 * Fetches a file of the server's and hands it to the browser's downloads.
 * @param order - What to make, for files that are made when they are asked for.
 * @throws ProblemError, UnreachableError
 */
export async function saveFile(address: string, name: string, order?: unknown): Promise<void> {
  const made =
    order === undefined
      ? {}
      : {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(order),
        }
  const response = await fetch(address, { credentials: 'same-origin', ...made }).catch(
    (error: unknown) => {
      throw new UnreachableError(String(error))
    },
  )
  if (!response.ok) throw await problemFrom(response)
  saveBlob(await response.blob(), name)
}

/** Hands what is here already to the browser's downloads. */
export function saveBlob(content: Blob, name: string): void {
  const url = URL.createObjectURL(content)
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  // The download has its own hold on the content by then.
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}
