import { AloneServer } from '@nibquill/server/testing/alone'
import { type Person, SmallSchool, TestServer } from '@nibquill/server/testing/testServer'
import { addressOf, begin, TUS } from '@nibquill/server/testing/uploadSteps'
import { execFileSync } from 'node:child_process'
import { createReadStream } from 'node:fs'
import { mkdtemp, rm, stat } from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { Readable } from 'node:stream'
import { line, median, timeMs, type Line } from './measure.ts'

/** At 1.8 MB each: a little under the most a film may have. */
const FRAMES = 216
const ROUNDS = 3

/**
 * A film of 400 MB sent to a server in a process of its own: taken in, hashed, cleaned and stored.
 * Its time against copying the file with `cat` and hashing it with `sha256sum`; and how much its
 * memory grew at the most.
 */
export async function benchArrival(): Promise<Line[]> {
  process.env.NIBQUILL_TEST_CLUSTER = process.env.NIBQUILL_BENCH_CLUSTER
  const folder = await mkdtemp(path.join(os.tmpdir(), 'nibquill-bench-'))
  const film = path.join(folder, 'film.mov')
  makeFilm(film, FRAMES)
  const first = path.join(folder, 'first.mov')
  makeFilm(first, 2)
  const test = await TestServer.start()
  const school = await SmallSchool.open(test)
  const server = await AloneServer.start(test.config, {}, 'bench/src/serveFilms.ts')
  const teacher = school.teacher.copiedInto(school.teacher.browser, server.at)
  // Whatever is loaded at the first file is there before it is measured.
  await send(teacher, first)
  const before = server.peakMemoryMb
  const times = { ours: [] as number[], floor: [] as number[] }
  for (let round = 0; round < ROUNDS; round++) {
    times.floor.push(
      await timeMs(async () => {
        execFileSync('sh', ['-c', `cat "${film}" > "${film}.copy" && sha256sum "${film}.copy"`])
      }),
    )
    times.ours.push(await timeMs(() => send(teacher, film)))
  }
  const grew = server.peakMemoryMb - before
  await server.end()
  await test.stop()
  await rm(folder, { recursive: true, force: true })
  return [
    line('400 MB arrive: the server grows at most (MB)', grew, 80, 'MB', '<=', 1),
    line(
      '400 MB arrive: against cat and sha256sum (s)',
      median(times.ours) / 1000,
      median(times.floor) / 1000,
      's',
      '<=',
      4,
    ),
  ]
}

/** A film of noise, as it comes from the camera: nothing in it can be made smaller. */
function makeFilm(file: string, frames: number): void {
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'uyvy422', '-s', '1280x720', '-r', '25']
  execFileSync('ffmpeg', [
    ...['-v', 'error', ...raw, '-i', '/dev/urandom', '-frames:v', String(frames)],
    ...['-c', 'copy', '-metadata', 'title=The crab', file],
  ])
}

async function send(teacher: Person, file: string): Promise<void> {
  const { size } = await stat(file)
  const address = addressOf(await begin(teacher, size))
  const sent = await teacher.fetch('PATCH', address, {
    headers: { ...TUS, 'Upload-Offset': '0', 'Content-Type': 'application/offset+octet-stream' },
    body: Readable.toWeb(createReadStream(file)) as ReadableStream,
    duplex: 'half',
  } as RequestInit)
  if (sent.status !== 200) throw new Error(`the film did not arrive: ${await sent.text()}`)
}
