import { Chance, photograph } from '@nibquill/demo'
import { PICTURE_SIZES } from '@nibquill/core'
import { startServer } from '@nibquill/server'
import { mkdtemp, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as newId } from 'uuid'
import { benchConfig, makeOwner } from './school.ts'
import { inTurn, line, type Line } from './measure.ts'

const PICTURES = 8
const ROUNDS = 5

/**
 * 12-megapixel photos through arrival and the job, two at a time as the queue runs them, against
 * sharp alone making the same sizes.
 */
export async function benchPictures(): Promise<Line[]> {
  const { config, stop } = await benchConfig('pictures')
  const server = await startServer(config)
  await server.platform.queue.stop()
  const ownerId = await makeOwner(server)
  const { media } = server.capabilities
  const photos: Buffer[] = []
  // Each differs in one pixel a round, or storage would find it again and skip the work.
  const base = await sharp(await photograph('crab', new Chance(1)))
    .resize(4000, 3000, { fit: 'fill' })
    .jpeg({ quality: 90 })
    .toBuffer()
  for (let i = 0; i < PICTURES; i++) photos.push(base)
  let serial = 0
  const fresh = (photo: Buffer) =>
    Buffer.concat([photo.subarray(0, 2), comment(serial++), photo.subarray(2)])
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bench-'))
  const pipeline = async (photo: Buffer) => {
    const mediaId = newId()
    await media.arrive({ mediaId, ownerId, name: 'photo', sha256: null, use: 'part' }, photo)
    await media.prepare(mediaId)
  }
  const alone = async (photo: Buffer) => {
    const { data, info } = await sharp(photo)
      .autoOrient()
      .resize({ width: 2048, height: 2048, fit: 'inside' })
      .raw()
      .toBuffer({ resolveWithObject: true })
    for (const size of PICTURE_SIZES) {
      await sharp(data, { raw: { width: info.width, height: info.height, channels: 3 } })
        .resize({ width: size, height: size, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality: 80 })
        .toFile(path.join(folder, `${newId()}.jpg`))
    }
  }
  await pipeline(fresh(base))
  await alone(base)
  const times = await inTurn(
    ROUNDS,
    () => twoAtATime(photos.map(fresh), pipeline),
    () => twoAtATime(photos.map(fresh), alone),
  )
  await server.close()
  await stop()
  await rm(folder, { recursive: true, force: true })
  return [
    line(
      'pictures',
      PICTURES / (times.value / 1000),
      PICTURES / (times.floor / 1000),
      'pictures/s',
      '>=',
      0.85,
    ),
  ]
}

/**
 * A quantisation table nobody uses, with a number in it: survives cleaning, so that each file is
 * another file.
 */
export function comment(serial: number): Buffer {
  const table = Buffer.alloc(69)
  table.writeUInt16BE(0xffdb, 0)
  table.writeUInt16BE(67, 2)
  table[4] = 3
  table.fill(1, 5)
  table.writeUInt16BE((serial % 60_000) + 257, 5)
  return table
}

async function twoAtATime<T>(items: T[], work: (item: T) => Promise<void>): Promise<void> {
  const left = [...items]
  const worker = async () => {
    for (let item = left.shift(); item !== undefined; item = left.shift()) await work(item)
  }
  await Promise.all([worker(), worker()])
}
