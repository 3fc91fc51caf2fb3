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
const endings = (kind: (typeof PICKED)[number]): string[] => Object.values(MEDIA[kind].types)
