import { MEDIA, type MediaKind } from '@nibquill/core'

/** Made by office programs: nothing a browser or the school can look into. */
const OFFICE = /\.(docx?|xlsx?|pptx?|od[tsp]|pages|numbers|key|pub|rtf)$/i
export const isOfficeFile = ({ name }: File): boolean => OFFICE.test(name)

const PICKED = ['film', 'sound', 'paper'] as const
type Picked = (typeof PICKED)[number] | 'picture'

/**
 * What a picked file seems to be, by what its system says of it; the school looks into it. What is
 * nothing else is taken for a picture.
 */
export function kindOfFile({ type, name }: File): Picked & MediaKind {
  const [plain = ''] = type.split(';')
  const ending = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? ''
  return (
    PICKED.find((kind) =>
      plain === '' ? endings(kind).includes(ending) : plain in MEDIA[kind].types,
    ) ?? (plain.startsWith('video/') ? 'film' : plain.startsWith('audio/') ? 'sound' : 'picture')
  )
}
/** The same, where a film is one that shows something: systems call a recording by its container. */
export async function lookAtKind(file: File): Promise<Picked & MediaKind> {
  const kind = kindOfFile(file)
  return kind === 'film' && (await showsNothing(file)) ? 'sound' : kind
}

/** A browser that cannot open it, or takes long, is not asked again. */
const PATIENCE_MS = 3000

function showsNothing(file: File): Promise<boolean> {
  const src = URL.createObjectURL(file)
  const video = Object.assign(document.createElement('video'), { preload: 'metadata', src })
  return new Promise<boolean>((resolve) => {
    video.onloadedmetadata = () => resolve(video.videoWidth === 0)
    video.onerror = () => resolve(false)
    setTimeout(() => resolve(false), PATIENCE_MS)
  }).finally(() => {
    video.removeAttribute('src')
    URL.revokeObjectURL(src)
  })
}

const endings = (kind: (typeof PICKED)[number]): string[] => Object.values(MEDIA[kind].types)
