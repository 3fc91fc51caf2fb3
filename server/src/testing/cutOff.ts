import { once } from 'node:events'
import { connect, createServer, type AddressInfo, type Socket } from 'node:net'

/**
 * A way to the database that can be cut (nobody answers), frozen (nobody says anything) and mended.
 */
export class WayToDatabase {
  readonly url: string
  readonly #server: ReturnType<typeof createServer>
  readonly #pairs = new Set<[Socket, Socket]>()
  #state: 'open' | 'cut' | 'frozen' = 'open'
  /** How many have come this way so far. */
  tried = 0

  private constructor(server: ReturnType<typeof createServer>, url: string) {
    this.#server = server
    this.url = url
  }

  static async open(databaseUrl: string): Promise<WayToDatabase> {
    const target = new URL(databaseUrl)
    const server = createServer()
    server.listen(0, '127.0.0.1')
    await once(server, 'listening')
    const own = new URL(databaseUrl)
    own.port = String((server.address() as AddressInfo).port)
    const way = new WayToDatabase(server, own.toString())
    server.on('connection', (near) => way.#join(near, Number(target.port)))
    return way
  }

  #join(near: Socket, port: number): void {
    this.tried++
    if (this.#state === 'cut') return void near.destroy()
    const far = connect(port, '127.0.0.1')
    const pair: [Socket, Socket] = [near, far]
    this.#pairs.add(pair)
    for (const end of pair)
      end
        .on('error', () => undefined)
        .on('close', () => {
          this.#pairs.delete(pair)
          for (const other of pair) other.destroy()
        })
    near.pipe(far)
    far.pipe(near)
    if (this.#state === 'frozen') for (const end of pair) end.pause()
  }

  /** How many connections go this way now. */
  get connections(): number {
    return this.#pairs.size
  }

  cut(): void {
    this.#state = 'cut'
    for (const pair of [...this.#pairs]) for (const end of pair) end.destroy()
  }

  freeze(): void {
    this.#state = 'frozen'
    for (const pair of this.#pairs) for (const end of pair) end.pause()
  }

  mend(): void {
    this.#state = 'open'
    for (const pair of this.#pairs) for (const end of pair) end.resume()
  }

  async close(): Promise<void> {
    this.cut()
    this.#server.close()
    await once(this.#server, 'close')
  }
}
