import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { readdirSync, readFileSync } from 'node:fs'
import type { Socket } from 'node:net'
import { plainScript } from '../../../scripts/plainScript.mjs'
import type { Config } from '../platform/config.ts'

export { plainScript }

/** A test that fails on its way ends nothing: they go with the process that started them. */
const running = new Set<ChildProcess>()
process.once('exit', () => running.forEach((child) => child.kill('SIGKILL')))

/** A server in a process of its own, which can be killed, stopped and looked at from outside. */
export class AloneServer {
  readonly child: ChildProcess
  readonly at: string
  private constructor(child: ChildProcess, at: string) {
    this.child = child
    this.at = at
  }

  /**
   * @param settings - In place of those of `config`.
   * @param script - What is run, from the root of the project; it prints its address.
   */
  static async start(
    config: Config,
    settings: Partial<Config> = {},
    script = 'server/src/testing/serveAlone.ts',
  ): Promise<AloneServer> {
    const child = spawn(process.execPath, ['--expose-gc', await plainScript(script)], {
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        NIBQUILL_TEST_CONFIG: JSON.stringify({ ...config, ...settings }),
      },
      stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    })
    running.add(child)
    child.once('exit', () => running.delete(child))
    const [line] = (await once(child.stdout!, 'data')) as [Buffer]
    // Nor do they keep that process waiting.
    child.unref()
    child.channel?.unref()
    ;(child.stdout as Socket).unref()
    return new AloneServer(child, line.toString().trim())
  }

  async end(signal: 'SIGKILL' | 'SIGTERM' = 'SIGKILL'): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return
    const gone = once(this.child, 'exit')
    this.child.ref()
    this.child.kill(signal)
    await gone
  }

  /** Open files and connections, as the system counts them. */
  get descriptors(): number {
    return readdirSync(`/proc/${this.child.pid}/fd`).length
  }

  /** What it holds on to: garbage, which the system counts as well, is taken out before. */
  async heldMb(): Promise<number> {
    this.child.send('held')
    const [bytes] = (await once(this.child, 'message')) as [number]
    return bytes / 1024 / 1024
  }

  /** The most memory it ever held. */
  get peakMemoryMb(): number {
    return (
      Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${this.child.pid}/status`, 'utf8'))![1]) /
      1024
    )
  }
}
