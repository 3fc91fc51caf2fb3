import { MAX_MEGAPIXELS, PICTURE_SIZES } from '@nibquill/core'
import { fork, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import pLimit from 'p-limit'
import { ProgramFailed } from '../../platform/runProgram.ts'
import type { MadeForm } from './kinds.ts'

const JPEG = { quality: 80 } as const
/** The largest picture that is taken needs about four. */
const MOST_SECONDS = 60

type Made = { size: (typeof PICTURE_SIZES)[number]; file: string; width: number; height: number }
type Answer = { id: number; made?: Made[]; error?: string }
type Waiting = { resolve: (made: Made[]) => void; reject: (error: Error) => void }

const waiting = new Map<number, Waiting>()
let serial = 0
let press: ChildProcess | null = null
const alone = pLimit(1)

/**
 * Makes the upright sizes of a picture, largest first: it is decoded once, each smaller one comes
 * from the one before.
 * Never enlarges; see-through becomes white paper. Nothing but pixels is carried over.
 * @param into - A folder for what is made.
 * @returns One JPEG a size.
 * @throws ProgramFailed; Error where it is no picture
 */
export async function makeSizes(file: string, into: string): Promise<MadeForm[]> {
  const picture = {
    file,
    into,
    sizes: PICTURE_SIZES,
    mostPixels: MAX_MEGAPIXELS * 1_000_000,
    jpeg: JPEG,
  }
  const made = await askPress(picture).catch((error: unknown) => {
    // Two were in the press when it broke: each gets another go with nobody beside it.
    if (error instanceof ProgramFailed) return alone(() => askPress(picture))
    throw error
  })
  return made.map(({ size, ...one }) => ({
    form: `${size}`,
    type: 'image/jpeg',
    ending: 'jpg',
    durationMs: null,
    ...one,
  }))
}

function askPress(picture: object): Promise<Made[]> {
  return new Promise<Made[]>((resolve, reject) => {
    const id = serial++
    const asked = (press ??= startPress())
    const timer = setTimeout(() => asked.kill('SIGKILL'), MOST_SECONDS * 1000)
    const settled = () => {
      clearTimeout(timer)
      waiting.delete(id)
      if (waiting.size === 0) asked.channel?.unref()
    }
    waiting.set(id, {
      resolve: (made) => (settled(), resolve(made)),
      reject: (error) => (settled(), reject(error)),
    })
    asked.channel?.ref()
    asked.send({ id, picture })
  })
}

function startPress(): ChildProcess {
  const fresh = fork(fileURLToPath(new URL('./press.mjs', import.meta.url)), [], {
    execArgv: [],
    env: { PATH: process.env.PATH },
  })
  fresh.unref()
  fresh.on('message', ({ id, made, error }: Answer) => {
    if (made) waiting.get(id)?.resolve(made)
    else waiting.get(id)?.reject(new Error(error))
  })
  const end = (why: string) => {
    if (press === fresh) press = null
    for (const { reject } of [...waiting.values()])
      reject(new ProgramFailed('press', 'time', null, why))
  }
  fresh.on('error', (error) => end(String(error)))
  fresh.on('exit', (code, signal) => end(`ended with ${code ?? signal}`))
  return fresh
}
