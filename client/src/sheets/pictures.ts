import { addressHere } from '../media/filesHere'
import { mediaAddress } from '../media/mediaAddress'

/** Where a picture on a drawing is read: from this tablet, or a tablet's size of it. */
const addressOf = (mediaId: string, link?: string): string =>
  addressHere(mediaId) ?? mediaAddress({ mediaId, state: 'arrived' }, 2048, link)

/** Pictures that lie on a drawing, fetched once each; tells when one has come. */
export class Pictures {
  readonly #pictures = new Map<string, HTMLImageElement>()
  readonly #listeners = new Set<() => void>()
  readonly #link: string | undefined

  /** @param link - Of a page link, where they are looked at through one. */
  constructor(link?: string) {
    this.#link = link
  }

  subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }

  /** @returns null while it is on its way */
  get(mediaId: string): HTMLImageElement | null {
    const there = this.#pictures.get(mediaId)
    if (there) return there.complete && there.naturalWidth > 0 ? there : null
    const picture = new window.Image()
    picture.onload = () => this.#listeners.forEach((tell) => tell())
    // Asked for again by whoever paints next, once the network is back.
    picture.onerror = () => setTimeout(() => this.#pictures.delete(mediaId), RETRY_MS)
    picture.src = addressOf(mediaId, this.#link)
    this.#pictures.set(mediaId, picture)
    return null
  }
}
const RETRY_MS = 3000
