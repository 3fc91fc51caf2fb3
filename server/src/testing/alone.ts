import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { readdirSync, readFileSync } from 'node:fs'
import type { Config } from '../platform/config.ts'

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
   * @param script - What is run; it prints its address.
   */
  static async start(
    config: Config,
    settings: Partial<Config> = {},
    script = new URL('./serveAlone.ts', import.meta.url),
  ): Promise<AloneServer> {
    const child = spawn(process.execPath, ['--import', 'tsx', script.pathname], {
      env: {
        ...process.env,
        NODE_OPTIONS: '',
        NIBQUILL_TEST_CONFIG: JSON.stringify({ ...config, ...settings }),
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    const [line] = (await once(child.stdout!, 'data')) as [Buffer]
    return new AloneServer(child, line.toString().trim())
  }

  async end(signal: 'SIGKILL' | 'SIGTERM' = 'SIGKILL'): Promise<void> {
    if (this.child.exitCode !== null || this.child.signalCode !== null) return
    const gone = once(this.child, 'exit')
    this.child.kill(signal)
    await gone
  }

  /** Open files and connections, as the system counts them. */
  get descriptors(): number {
    return readdirSync(`/proc/${this.child.pid}/fd`).length
  }

  get memoryMb(): number {
    return (
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${this.child.pid}/status`, 'utf8'))![1]) /
      1024
    )
  }

  /** The most memory it ever held. */
  get peakMemoryMb(): number {
    return (
      Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${this.child.pid}/status`, 'utf8'))![1]) /
      1024
    )
  }
}
