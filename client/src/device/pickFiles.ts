import { PICTURE_ACCEPT } from '@nibquill/core'

/** Lets somebody choose pictures. @returns none when they changed their mind */
export function pickPictures(): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.accept = PICTURE_ACCEPT
    input.multiple = true
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
