/**
 * Files that are on this tablet, by the id they have at school: shown and worked on from here,
 * whether they have arrived or not.
 */
const here = new Map<string, { file: File; address: string }>()

export function holdHere(mediaId: string, file: File): void {
  if (here.has(mediaId)) return
  here.set(mediaId, { file, address: URL.createObjectURL(file) })
}
export const fileHere = (mediaId: string): File | null => here.get(mediaId)?.file ?? null
/** Null also for what browsers do not show. */
export const addressHere = (mediaId: string): string | null => {
  const held = here.get(mediaId)
  return held && !/hei[cf]/.test(held.file.type) ? held.address : null
}

/** Lets one go that is at school, and shown from there. */
export function letGo(mediaId: string): void {
  const held = here.get(mediaId)
  if (held) URL.revokeObjectURL(held.address)
  here.delete(mediaId)
}

/** When the tablet goes to somebody else. */
export function letAllGo(): void {
  for (const mediaId of [...here.keys()]) letGo(mediaId)
}
