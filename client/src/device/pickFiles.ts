import { acceptOf } from '@nibquill/core'

/**
 * Lets somebody choose files.
 * @param accept - As an input element takes it.
 * @returns none when they changed their mind
 */
export function pickFiles(accept: string, options: { several?: boolean } = {}): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.accept = accept
    input.multiple = options.several ?? false
    input.style.display = 'none'
    document.body.append(input)
    const done = () => {
      resolve([...(input.files ?? [])])
      input.remove()
    }
    input.addEventListener('change', done, { once: true })
    input.addEventListener('cancel', done, { once: true })
    input.click()
  })
}

/** Whatever a piece can be made of, beside what is made here. */
export const pickForPiece = (): Promise<File[]> =>
  pickFiles(PICKED.map(acceptOf).join(','), { several: true })
const PICKED = ['picture', 'film', 'sound', 'paper'] as const
export const pickFilms = (): Promise<File[]> => pickFiles(acceptOf('film'))
export const pickPictures = (): Promise<File[]> => pickFiles(acceptOf('picture'), { several: true })
