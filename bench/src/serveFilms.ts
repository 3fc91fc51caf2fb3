// A server in a process of its own whose teachers may send films: nobody may yet, but what arrives is
// the largest there will be.
import { MEDIA, type MediaUse } from '@nibquill/core'

const uses: MediaUse[] = MEDIA.film.uses as unknown as MediaUse[]
uses.push('attachment')
await import('@nibquill/server/testing/serveAlone')
