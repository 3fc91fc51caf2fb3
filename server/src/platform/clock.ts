/** The one source of time. Tests and the demo school set it. */
export type Clock = { now: () => Date }
export const systemClock: Clock = { now: () => new Date() }

/** A clock that stands where it is put. */
export class SetClock implements Clock {
  #now: Date
  constructor(now: Date) {
    this.#now = now
  }
  now = () => this.#now
  set(now: Date): void {
    this.#now = now
  }
}
