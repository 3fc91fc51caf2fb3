// Hashes files beside the server's own thread: a class that sends its photos must not hold up a page.
import { createHash } from 'node:crypto'
import { closeSync, openSync, readSync } from 'node:fs'
import { parentPort } from 'node:worker_threads'

const slice = Buffer.allocUnsafe(1024 * 1024)

/** SHA-256 (hex), a slice at a time. */
function hash(file) {
  const sum = createHash('sha256')
  const open = openSync(file)
  try {
    for (let read; (read = readSync(open, slice)) > 0;) sum.update(slice.subarray(0, read))
  } finally {
    closeSync(open)
  }
  return sum.digest('hex')
}

parentPort.on('message', ({ id, file }) => {
  try {
    parentPort.postMessage({ id, sha256: hash(file) })
  } catch (error) {
    parentPort.postMessage({ id, error })
  }
})
