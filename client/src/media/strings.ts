import { MAX_UPLOAD_BYTES } from '@nibquill/core'

export const strings = {
  tooLarge: `This file is too big. The most is ${Math.round(MAX_UPLOAD_BYTES / 1024 / 1024)} MB.`,
  empty: 'This file is empty, so there is nothing to keep.',
  stuck: 'It did not get through. It is safe here; try again.',
  waiting: 'waiting',
  sending: (share: number) => `on its way, ${Math.round(share * 100)}%`,
  checking: 'nearly there',
  tryAgain: 'Try again',
  forget: 'Leave it out',
}
