import { spawn } from 'node:child_process'
import { once } from 'node:events'
import type { Writable } from 'node:stream'

/** What an outside program may use of the machine. */
export type Bounds = { seconds: number; memoryMb: number }

/** An outside program that did not end well: for want of time, or because of what it was given. */
export class ProgramFailed extends Error {
  readonly why: 'time' | 'input'
  readonly exitCode: number | null
  constructor(program: string, why: 'time' | 'input', exitCode: number | null, said: string) {
    super(`${program} ${why === 'time' ? 'took too long' : `ended with ${exitCode}`}: ${said}`)
    this.why = why
    this.exitCode = exitCode
  }
}

const MOST_SAID = 2000
/** Told first that its time is up: ended at once, nobody could tell it from one that broke. */
const GRACE_S = 2
/** A listing of a paper of a thousand pages is about 4 MB. */
const MOST_ANSWERED_BYTES = 16 * 1024 * 1024

/**
 * Runs a program on a file, bounded in processor time, wall-clock time and memory, with no input
 * but what it is fed and none of our environment.
 * @param fine - Exit codes that count as done.
 * @param feed - Writes what it is to read, where that is more than a file; what is no longer wanted is
 *   no fault.
 * @param take - Takes what it prints as it comes; without, it is kept and returned.
 * @returns what it printed
 * @throws ProgramFailed; the system's own error where the program is not installed
 */
export async function runProgram(
  program: string,
  words: readonly string[],
  { seconds, memoryMb }: Bounds,
  fine: readonly number[] = [0],
  take?: (chunk: Buffer) => void,
  feed?: (into: Writable) => Promise<void>,
): Promise<string> {
  const child = spawn(
    'prlimit',
    [
      ...[`--as=${memoryMb * 1024 * 1024}`, `--cpu=${seconds}:${seconds + GRACE_S}`, '--core=0'],
      ...['--', program, ...words],
    ],
    {
      stdio: ['pipe', 'pipe', 'pipe'],
      env: { PATH: process.env.PATH, LC_ALL: 'C.UTF-8' },
    },
  )
  let late = false
  // Twice the processor's time: others want the processor as well.
  const timer = setTimeout(() => {
    late = true
    child.kill('SIGKILL')
  }, 2000 * seconds)
  const answer: Buffer[] = []
  let bytes = 0
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => {
    if (take) return take(chunk)
    bytes += chunk.length
    if (bytes > MOST_ANSWERED_BYTES) child.kill('SIGKILL')
    else answer.push(chunk)
  })
  child.stderr.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-MOST_SAID)))
  const fed = feedInto(child.stdin, feed)
  try {
    const [code, signal] = (await once(child, 'close')) as [number | null, string | null]
    if (code !== null && fine.includes(code)) return Buffer.concat(answer).toString('utf8')
    throw new ProgramFailed(program, late || signal === 'SIGXCPU' ? 'time' : 'input', code, said)
  } finally {
    clearTimeout(timer)
    await fed
  }
}

async function feedInto(
  into: Writable,
  feed: (into: Writable) => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  into.on('error', () => undefined)
  try {
    await feed(into)
  } finally {
    into.end()
  }
}
