import { Arrived } from '@nibquill/contract'
import type { DetailedError } from 'tus-js-client'
import * as v from 'valibot'
import { api } from '../api/api'
import { codeOf, problemFrom, ProblemError } from '../kit/problems'

const ENDPOINT = '/api/media/uploads'
/** Short hiccups are bridged at once; for longer ones the uploader waits its own time. */
const RETRY_DELAYS_MS = [0, 500, 1500, 4000]

/** The browser hashes what is whole in memory; a longer file is hashed a slice at a time. */
const WHOLE_BYTES = 64 * 1024 * 1024
const SLICE_BYTES = 4 * 1024 * 1024

/**
 * SHA-256 of a file, in hex: by the browser where it does that (safe addresses only), off the
 * page's own time.
 */
export async function hashOf(file: Blob): Promise<string> {
  const { bytesToHex } = await import('@noble/hashes/utils')
  if (typeof crypto !== 'undefined' && crypto.subtle && file.size <= WHOLE_BYTES)
    return bytesToHex(
      new Uint8Array(await crypto.subtle.digest('SHA-256', await file.arrayBuffer())),
    )
  const { sha256 } = await import('@noble/hashes/sha2')
  const sum = sha256.create()
  for (let from = 0; from < file.size; from += SLICE_BYTES)
    sum.update(new Uint8Array(await file.slice(from, from + SLICE_BYTES).arrayBuffer()))
  return bytesToHex(sum.digest())
}

/**
 * Brings one file to school, from where an earlier try stopped.
 * @returns what the server says it has
 * @throws ProblemError when the server said why not; Error when nothing of ours answered
 */
export async function transfer(
  what: { mediaId: string; name: string; hash: string; use?: 'pages' },
  file: File,
  signal: AbortSignal,
  onSent: (bytes: number) => void,
): Promise<Arrived> {
  const { mediaId, name, hash, use } = what
  // Fetched when there is something to send: no screen waits for it.
  const { Upload } = await import('tus-js-client')
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint: ENDPOINT,
      retryDelays: RETRY_DELAYS_MS,
      onShouldRetry: mayPass,
      removeFingerprintOnSuccess: true,
      fingerprint: () => Promise.resolve(`nibquill/${mediaId}`),
      metadata: { mediaId, filename: name, sha256: hash, ...(use ? { use } : {}) },
      onProgress: onSent,
      onSuccess: ({ lastResponse }) => {
        const arrived = v.safeParse(Arrived, parse(lastResponse.getBody()))
        if (arrived.success) resolve(arrived.output)
        else resolve(askArrived(mediaId))
      },
      onError: (error) =>
        void meantBy(error).then((said) =>
          codeOf(said) === 'media/arrived-already' ? resolve(askArrived(mediaId)) : reject(said),
        ),
    })
    signal.addEventListener('abort', () => {
      void upload.abort()
      reject(new Error('stopped'))
    })
    upload.findPreviousUploads().then(([previous]) => {
      if (previous) upload.resumeFromPreviousUpload(previous)
      upload.start()
    }, reject)
  })
}

/**
 * A lock or another offset, as the protocol has them, are soon over; what our own server refuses
 * stays refused.
 */
function mayPass({ originalResponse: answer }: DetailedError): boolean {
  if (!navigator.onLine) return false
  const status = answer?.getStatus() ?? 0
  if (status < 400 || status >= 500) return true
  return (status === 409 || status === 423) && !answer!.getBody().includes('/problems/')
}

/** An earlier try arrived whole, and its answer was lost on the way: what the school has of it. */
const askArrived = (mediaId: string): Promise<Arrived> => api.get(`/media/${mediaId}`, Arrived)

/** Our server's own words where it said any; a proxy's page is not ours, whatever its status. */
async function meantBy(error: Error | DetailedError): Promise<Error> {
  const response = 'originalResponse' in error ? error.originalResponse : null
  if (!response) return error
  const status = response.getStatus()
  const said = await problemFrom(
    new Response(response.getBody(), { status: status >= 200 && status < 600 ? status : 500 }),
  )
  return said instanceof ProblemError ? said : error
}

function parse(body: string): unknown {
  try {
    return JSON.parse(body)
  } catch {
    return null
  }
}
