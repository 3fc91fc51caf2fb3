import { startServer } from '@nibquill/server'
import { mkdtemp, readFile, rm } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { ffmpeg } from './ffmpeg.ts'
import { line, timeMs, type Line } from './measure.ts'
import { benchConfig, makeOwner } from './school.ts'
import { sha256, signIn, upload } from './sending.ts'

const TABLETS = 30
const SECONDS = 30

/**
 * Thirty tablets send half a minute of voice each at once: taken in, measured, evened out and ready
 * to be played, against ffmpeg alone measuring and evening out one after the other.
 */
export async function benchVoices(): Promise<Line[]> {
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bench-'))
  const { config, stop } = await benchConfig('voices')
  const server = await startServer(config)
  await makeOwner(server)
  const cookie = await signIn(server.url)
  const files = await Promise.all(Array.from({ length: TABLETS }, (_, i) => speak(folder, i)))
  const clips = await Promise.all(files.map((file) => readFile(file)))
  const { manager } = server.platform.db
  const waiting = async () => {
    const [found] = await manager.query<{ n: number }[]>(
      "select count(*)::int as n from media where state = 'arrived'",
    )
    return found!.n
  }
  const ours = await timeMs(async () => {
    await Promise.all(clips.map((clip) => upload(server.url, cookie, clip, sha256(clip))))
    while ((await waiting()) > 0) await new Promise((wait) => setTimeout(wait, 50))
  })
  const [ready] = await manager.query<{ n: number }[]>(
    "select count(*)::int as n from media where state = 'ready'",
  )
  const alone = await timeMs(async () => {
    for (const file of files) {
      await ffmpeg('-i', file, '-ac', '1', '-af', 'ebur128', '-f', 'null', '-')
      await ffmpeg(
        ...['-i', file, '-af', 'volume=4dB,alimiter=limit=0.891:level=0', '-ac', '1'],
        ...['-c:a', 'aac', '-b:a', '64k', path.join(folder, 'alone.m4a')],
      )
    }
  })
  await server.close()
  await stop()
  await rm(folder, { recursive: true, force: true })
  return [
    line(`${TABLETS} voices at once, ready (s)`, ours / 1000, alone / 1000, 's', '<=', 1.3),
    line('voices that are ready', ready!.n, TABLETS, 'voices', '>=', 1),
  ]
}

/** Something like speech, each clip another one. @returns its file */
async function speak(folder: string, seed: number): Promise<string> {
  const file = path.join(folder, `said-${seed}.webm`)
  const voice = `anoisesrc=c=pink:r=48000:d=${SECONDS}:seed=${seed},volume='if(lt(mod(t,0.9),0.55),0.4,0.01)':eval=frame`
  await ffmpeg('-f', 'lavfi', '-i', voice, '-ac', '1', '-c:a', 'libopus', file)
  return file
}
