import { DomainError } from '@nibquill/core'
import type { Request, Response } from 'express'
import { pipeline } from 'node:stream/promises'
import type { Storage } from './storage.ts'

/**
 * Answers a request with something stored: validators, one range, length. Other headers must be set
 * before.
 * @see RFC 9110, 13 (conditional requests) and 14 (range requests)
 */
export async function serveStored(
  storage: Storage,
  key: string,
  request: Request,
  response: Response,
): Promise<void> {
  const stored = await storage.about(key)
  if (!stored) throw new DomainError('request/not-found')
  const { sizeBytes, storedAt } = stored
  // Under one key there is never anything else, but a book that was made again.
  const tag = `"${key}.${storedAt.getTime()}"`
  response.set({
    ETag: tag,
    'Last-Modified': storedAt.toUTCString(),
    'Accept-Ranges': 'bytes',
  })
  if (request.fresh) return void response.status(304).end()
  const range = rangeOf(request, tag, storedAt, sizeBytes)
  if (range === 'beyond') {
    response.set({ 'Content-Range': `bytes */${sizeBytes}` })
    return void response.status(416).end()
  }
  if (range)
    response.status(206).set({ 'Content-Range': `bytes ${range.start}-${range.end}/${sizeBytes}` })
  response.set({ 'Content-Length': String(range ? range.end - range.start + 1 : sizeBytes) })
  if (request.method === 'HEAD' || sizeBytes === 0) return void response.end()
  try {
    await pipeline(await storage.stream(key, range ?? undefined), response)
  } catch (error) {
    // A reader who closes the page half-way is no error of ours.
    if (!response.headersSent) throw error
    response.destroy()
  }
}

/** Several ranges at once are answered with the whole: nobody of ours asks for them. */
function rangeOf(
  request: Request,
  tag: string,
  storedAt: Date,
  sizeBytes: number,
): { start: number; end: number } | 'beyond' | null {
  const condition = request.get('If-Range')
  if (condition && condition !== tag && condition !== storedAt.toUTCString()) return null
  const ranges = request.range(sizeBytes, { combine: true })
  if (ranges === -1) return 'beyond'
  if (!Array.isArray(ranges) || ranges.type !== 'bytes' || ranges.length !== 1) return null
  return ranges[0]!
}
