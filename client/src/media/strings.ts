import { MAX_UPLOAD_BYTES } from '@nibquill/core'

export const strings = {
  tooLarge: `This file is too big. The most is ${Math.round(MAX_UPLOAD_BYTES / 1024 / 1024)} MB.`,
  empty: 'This file is empty, so there is nothing to keep.',
  stuck: 'It did not get through. It is safe here; try again.',
  waitsForCard: 'It waits here for your card.',
  notKept: 'This tablet cannot keep it. Leave this page open until it has arrived.',
  keeping: 'being kept',
  waiting: 'waiting',
  sending: (share: number) => `on its way, ${Math.round(share * 100)}%`,
  checking: 'nearly there',
  tryAgain: 'Try again',
  forget: 'Leave it out',
  larger: 'See it larger',
  picture: 'Picture',
  paper: 'Paper',
  close: 'Close',
  hear: 'Hear it',
  pause: 'Stop it',
  cannotPlay: 'This recording cannot be played here.',
  voiceName: 'voice',
  stop: (seconds: number) =>
    `Stop, ${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`,
  noMicrophone: 'The microphone cannot be used. Allow it in the browser, then try again.',
  onItsWay: (name: string, share: number) => `${name}: ${Math.round(share * 100)} % on its way`,
  addFile: 'Add a file',
  takeOut: (name: string) => `Take out ${name}`,
}
