import { startServer } from '@nibquill/server'
import { hashFile } from '@nibquill/server/platform/hashFile'
import express from 'express'
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import type { AddressInfo } from 'node:net'
import os from 'node:os'
import path from 'node:path'
import { pipeline } from 'node:stream/promises'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { line, median, timeMs, type Line } from './measure.ts'
import { comment } from './pictures.ts'
import { benchConfig, makeOwner } from './school.ts'
import { sha256, signIn, upload } from './sending.ts'

const TABLETS = 30
const PHOTOS = 3
const ROUNDS = 3

/**
 * Thirty tablets send three photos of four megabytes each at once: resumable, cleaned, hashed and
 * stored, with the queue making sizes meanwhile, against an Express route that only writes the bytes
 * to a file; and against one that also hashes them twice, as they were sent and as they are kept,
 * which is what a processor without instructions for it spends most on.
 */
export async function benchUploads(): Promise<Line[]> {
  const { config, stop } = await benchConfig('uploads')
  const server = await startServer(config)
  await makeOwner(server)
  const at = server.url
  const cookie = await signIn(at)
  const base = await heavyPhoto()
  let serial = 0
  const fresh = () => Buffer.concat([base.subarray(0, 2), comment(serial++), base.subarray(2)])
  const sink = await startSink()
  const times = { ours: [] as number[], sink: [] as number[], hashingSink: [] as number[] }
  let lost = 0
  for (let round = 0; round < ROUNDS; round++) {
    const tablets = Array.from({ length: TABLETS }, () => Array.from({ length: PHOTOS }, fresh))
    // A tablet hashes its own photos; here they are hashed before the clock runs.
    const hashes = new Map<Buffer, string>(tablets.flat().map((photo) => [photo, sha256(photo)]))
    times.sink.push(await timeMs(() => atOnce(tablets, (photo) => sink.put(photo, 'write'))))
    times.hashingSink.push(await timeMs(() => atOnce(tablets, (photo) => sink.put(photo, 'hash'))))
    times.ours.push(
      await timeMs(() =>
        atOnce(tablets, async (photo) => {
          if ((await upload(at, cookie, photo, hashes.get(photo)!)) !== hashes.get(photo)) lost++
        }),
      ),
    )
  }
  await sink.close()
  await server.close()
  await stop()
  const megabytes = (TABLETS * PHOTOS * base.length) / 1e6
  const perSecond = (ms: number) => megabytes / (ms / 1000)
  return [
    line(
      `${TABLETS} tablets x ${PHOTOS} photos (MB/s)`,
      perSecond(median(times.ours)),
      perSecond(median(times.sink)),
      'MB/s',
      '>=',
      0.7,
    ),
    line(
      `${TABLETS} tablets x ${PHOTOS} photos, against a sink that hashes (MB/s)`,
      perSecond(median(times.ours)),
      perSecond(median(times.hashingSink)),
      'MB/s',
      '>=',
      0.7,
    ),
    line('photos lost on the way', lost, TABLETS * PHOTOS * ROUNDS, 'photos', '<=', 0),
  ]
}

async function heavyPhoto(): Promise<Buffer> {
  const noise = { type: 'gaussian', mean: 128, sigma: 60 } as const
  return sharp({ create: { width: 2260, height: 1680, channels: 3, background: '#888', noise } })
    .jpeg({ quality: 97 })
    .toBuffer()
}

/** One photo after the other from each tablet, all tablets side by side. */
const atOnce = (
  tablets: Buffer<ArrayBuffer>[][],
  send: (photo: Buffer<ArrayBuffer>) => Promise<void>,
): Promise<unknown> =>
  Promise.all(
    tablets.map(async (photos) => {
      for (const photo of photos) await send(photo)
    }),
  )

async function startSink(): Promise<{
  put: (photo: Buffer, way: 'write' | 'hash') => Promise<void>
  close: () => Promise<void>
}> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-sink-'))
  const app = express()
  app.put('/:way/:name', async (request, response) => {
    const file = path.join(folder, request.params.name)
    await pipeline(request, createWriteStream(file))
    if (request.params.way === 'hash') for (const _ of ['sent', 'kept']) await hashFile(file)
    response.sendStatus(204)
  })
  const listening = app.listen(0, '127.0.0.1')
  await new Promise((resolve) => listening.once('listening', resolve))
  const { port } = listening.address() as AddressInfo
  return {
    put: async (photo, way) =>
      void (await fetch(`http://127.0.0.1:${port}/${way}/${newId()}`, {
        method: 'PUT',
        body: new Uint8Array(photo),
      })),
    close: async () => {
      listening.closeAllConnections()
      listening.close()
      await rm(folder, { recursive: true, force: true })
    },
  }
}
