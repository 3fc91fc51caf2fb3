import { MEDIA } from '@nibquill/core'

export const strings = {
  damaged: 'This picture is damaged',
  farAway: 'This picture waits for the network.',
  tooLarge: `This file is too big. The most is ${Math.round(MEDIA.picture.mostBytes / 1024 / 1024)} MB.`,
  empty: 'This file is empty, so there is nothing to keep.',
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
