import { DomainError, endingOf, judgedVersion, type MediaType, type PartKind } from '@nibquill/core'
import { Zip, ZipPassThrough } from 'fflate'
import { once } from 'node:events'
import type { Writable } from 'node:stream'
import { fullKey } from '../media/keys.ts'
import { note } from '../platform/audit.ts'
import type { Platform } from '../platform/platform.ts'
import type { SignedIn } from '../platform/routes.ts'
import type { Pieces } from '../pieces/pieces.ts'

/** One file of a bundle: stored somewhere, or words. */
type Entry = { name: string; key: string } | { name: string; text: string }

/** Files somebody made; what lies on them, or stands for them, comes with them. */
const TAKEN = ['picture', 'ink', 'sound', 'film', 'paper']

type Row = {
  place: number
  kind: PartKind
  name: string
  text: string | null
  keptSha256: string | null
  type: MediaType | null
  /** Of a drawing: a picture of it. */
  drawn: string | null
}

/** What a teacher takes away of a piece: its files as they are kept, and its words. */
export class TakeFiles {
  readonly #platform: Platform
  readonly #pieces: Pieces
  constructor(platform: Platform, pieces: Pieces) {
    this.#platform = platform
    this.#pieces = pieces
  }

  /**
   * Of the version that is judged.
   * @throws DomainError `piece/not-found` where nothing was handed in
   */
  async list(viewer: SignedIn, pieceId: string): Promise<Entry[]> {
    const { manager } = this.#platform.db
    const { state, versions } = await this.#pieces.describe(pieceId)
    const version = judgedVersion(state, versions)
    if (!version) throw new DomainError('piece/not-found')
    const rows = await manager.query<Row[]>(
      `select w.position as place, t.kind, w.name, w.content ->> 'text' as text, m.kept_sha256 as "keptSha256", m.type,
         (select o.key from media_form o where o.media_id = m.id and f.role = 'ink' and o.form = '2048') as drawn
       from version_part w join part t on t.id = w.part_id
         left join version_file f on f.version_id = w.version_id and f.part_id = w.part_id and f.role = any($2) left join media m on m.id = f.media_id
       where w.version_id = $1 order by w.position, f.role`,
      [version.id, TAKEN],
    )
    await note(manager, this.#platform.clock.now(), viewer.personId, 'piece.take-files', pieceId)
    const entries = rows.flatMap((row, i) => entriesOf(row, rows[i - 1]?.place === row.place))
    const thoughts = version.reflection ? [{ name: 'thoughts.txt', text: version.reflection }] : []
    return [...entries, ...thoughts]
  }

  /** Bundles them, one after the other, as fast as they are read: none is held whole. */
  async bundle(entries: readonly Entry[], out: Writable): Promise<void> {
    const zip = new Zip((error, chunk, last) => {
      if (error) return void out.destroy(error)
      out.write(chunk)
      if (last) out.end()
    })
    try {
      for (const entry of entries) {
        const file = new ZipPassThrough(entry.name)
        zip.add(file)
        if ('text' in entry) file.push(new TextEncoder().encode(entry.text))
        else
          for await (const chunk of await this.#platform.storage.stream(entry.key)) {
            file.push(chunk as Uint8Array)
            if (out.destroyed) return
            if (out.writableNeedDrain) await Promise.race([once(out, 'drain'), once(out, 'close')])
          }
        file.push(new Uint8Array(0), true)
      }
      zip.end()
    } catch (error) {
      // Half a bundle is none: whoever takes it sees that it broke off.
      this.#platform.log.warn({ error: String(error) }, 'a bundle of files broke off')
      out.destroy()
    }
  }
}

/** @param again - Another file of the same part: its words are there already. */
function entriesOf(
  { place, kind, name, text, keptSha256, type, drawn }: Row,
  again: boolean,
): Entry[] {
  const called = `${Number(place) + 1} ${plain(name) || kind}`
  const withEnding = (ending: string) =>
    called.toLowerCase().endsWith(`.${ending}`) ? called : `${called}.${ending}`
  return [
    ...(keptSha256 && type
      ? [{ name: withEnding(endingOf(type)), key: fullKey({ keptSha256, type }) }]
      : []),
    ...(drawn ? [{ name: withEnding(drawn.split('.').at(-1)!), key: drawn }] : []),
    ...(text && !again ? [{ name: `${called}.txt`, text }] : []),
  ]
}

/** What every system takes as the name of a file. */
const plain = (name: string): string =>
  name
    .replace(/[\\/:*?"<>|\u0000-\u001f]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80)
