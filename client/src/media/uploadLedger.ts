import * as v from 'valibot'

const KEY = 'nibquill.half-way'
const Line = v.object({
  ownerId: v.string(),
  pieceId: v.string(),
  partId: v.string(),
  mediaId: v.string(),
  name: v.string(),
  size: v.number(),
  lastModified: v.number(),
})
type Line = v.InferOutput<typeof Line>
type Ids = { partId: string; mediaId: string }

/**
 * Which files of this tablet are half-way to school, by name and size; their contents are not kept
 * here.
 */
export class UploadLedger {
  find(ownerId: string, pieceId: string, file: File): Ids | null {
    const line = this.list(ownerId, pieceId).find(
      ({ name, size, lastModified }) =>
        name === file.name && size === file.size && lastModified === file.lastModified,
    )
    return line ? { partId: line.partId, mediaId: line.mediaId } : null
  }

  list(ownerId: string, pieceId: string): Line[] {
    return this.#read().filter((line) => line.ownerId === ownerId && line.pieceId === pieceId)
  }

  remember(ownerId: string, pieceId: string, file: File, ids: Ids): void {
    const line = {
      ownerId,
      pieceId,
      ...ids,
      name: file.name,
      size: file.size,
      lastModified: file.lastModified,
    }
    this.#write([...this.#read().filter(({ partId }) => partId !== ids.partId), line])
  }

  forget(partId: string): void {
    this.#write(this.#read().filter((line) => line.partId !== partId))
  }

  #read(): Line[] {
    try {
      const parsed = v.safeParse(v.array(Line), JSON.parse(localStorage.getItem(KEY) ?? '[]'))
      return parsed.success ? parsed.output : []
    } catch {
      return []
    }
  }

  #write(lines: Line[]): void {
    try {
      localStorage.setItem(KEY, JSON.stringify(lines))
    } catch {
      // A browser that keeps nothing: uploads still work, they only start anew after a reload.
    }
  }
}
