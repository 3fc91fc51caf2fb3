import { Worker } from 'node:worker_threads'

type Waiting = { resolve: (sha256: string) => void; reject: (error: Error) => void }
type Answer = { id: number; sha256?: string; error?: Error }

const waiting = new Map<number, Waiting>()
let serial = 0
let worker: Worker | null = null

/** SHA-256 (hex) of a file, a slice at a time, on a thread of its own. */
export function hashFile(file: string): Promise<string> {
  return new Promise((resolve, reject) => {
    const id = serial++
    waiting.set(id, { resolve, reject })
    worker ??= start()
    worker.ref()
    worker.postMessage({ id, file })
  })
}

function start(): Worker {
  const fresh = new Worker(new URL('./hashes.mjs', import.meta.url))
  fresh.on('message', ({ id, sha256, error }: Answer) => {
    const one = waiting.get(id)
    waiting.delete(id)
    // Nothing to hash is no reason to keep the process.
    if (waiting.size === 0) fresh.unref()
    if (sha256) one?.resolve(sha256)
    else one?.reject(error ?? new Error('no hash'))
  })
  const end = (error: Error) => {
    worker = null
    for (const { reject } of waiting.values()) reject(error)
    waiting.clear()
  }
  fresh.on('error', end)
  fresh.on('exit', (code) => end(new Error(`hashing ended with ${code}`)))
  return fresh
}
