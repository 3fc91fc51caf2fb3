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

export const pickPictures = (): Promise<File[]> => pickFiles(acceptOf('picture'), { several: true })
