import type { TalkFilm } from '@nibquill/contract'
import type { InkOfTalk } from '@nibquill/contract/ink'
import { DomainError, FILM_OF_TALK } from '@nibquill/core'
import { stat } from 'node:fs/promises'
import type { Platform } from '../platform/platform.ts'
import { addJob } from '../platform/queue.ts'
import { withScratch } from '../platform/scratch.ts'
import { formKey } from './keys.ts'
import { filmTalk } from './kinds/drawTalk.ts'
import type { Media } from './media.ts'
import { MediaFormRow, MediaRow } from './rows.ts'

type Found = { ink: MediaRow; sound: MediaFormRow | null }

/** Talk-throughs as films, made when somebody asks for one: to be kept outside of Nibquill. */
export class TalkFilms {
  readonly #platform: Platform
  readonly #media: Media
  constructor(platform: Platform, media: Media) {
    this.#platform = platform
    this.#media = media
  }

  /**
   * Has it made, where it has not been.
   * @param inkId - Of its ink.
   * @throws DomainError `media/not-found` for what is no talk-through
   */
  async ask(inkId: string): Promise<TalkFilm> {
    const { manager } = this.#platform.db
    if (!(await this.#find(inkId))) throw new DomainError('media/not-found')
    if (await manager.existsBy(MediaFormRow, { mediaId: inkId, form: FILM_OF_TALK }))
      return { ready: true }
    // One that is being made is not begun again.
    await addJob(manager, 'media.film-talk', { mediaId: inkId }, inkId, { line: 'films' })
    return { ready: false }
  }

  /** The job `media.film-talk`. */
  async make(inkId: string): Promise<void> {
    const { manager } = this.#platform.db
    const found = await this.#find(inkId)
    if (!found || (await manager.existsBy(MediaFormRow, { mediaId: inkId, form: FILM_OF_TALK })))
      return
    const { ink, sound } = found
    // Tried again once its voice can be played.
    if (!sound?.durationMs) throw new Error('its voice is not ready')
    const { durationMs } = sound
    const { talk } = (await this.#media.readInk(manager, inkId)) as InkOfTalk
    await withScratch(async (scratch) => {
      const { file, ending, ...form } = await this.#platform.storage.withFile(sound.key, (said) =>
        filmTalk(
          talk,
          { sound: said, durationMs },
          (mediaId) => this.#media.pictureOf(mediaId),
          scratch,
        ),
      )
      const key = formKey(ink, FILM_OF_TALK, ending)
      const sizeBytes = (await stat(file)).size
      await this.#platform.storage.put(key, { file, given: true })
      await manager.upsert(MediaFormRow, { mediaId: inkId, key, sizeBytes, ...form }, [
        'mediaId',
        'form',
      ])
    })
  }

  async #find(inkId: string): Promise<Found | null> {
    const { manager } = this.#platform.db
    const [ids] = await manager.query<{ soundId: string }[]>(
      `select s.media_id as "soundId" from part_file i join part t on t.id = i.part_id and t.kind = 'talk'
         join part_file s on s.part_id = t.id and s.role = 'sound' where i.media_id = $1 and i.role = 'ink'`,
      [inkId],
    )
    const ink = ids && (await manager.findOneBy(MediaRow, { id: inkId }))
    if (!ink) return null
    const form = 'playable' as const
    return { ink, sound: await manager.findOneBy(MediaFormRow, { mediaId: ids.soundId, form }) }
  }
}
