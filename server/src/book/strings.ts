import type { PartKind } from '@nibquill/core'

/** Every word printed in a book that is not the school's or the child's own. */
export const strings = {
  title: (name: string, term: string) => `${name}’s book, ${term}`,
  cover: (term: string, pieces: number) =>
    `${term}, ${pieces === 1 ? 'one piece of work' : `${pieces} pieces of work`}`,
  contents: 'What is inside',
  shown: (word: string, number: number, of: number, title: string) =>
    `${word} ${number} of ${of}: ${title}`,
  parts: {
    photo: 'Photo',
    drawing: 'Drawing',
    writing: 'Writing',
    voice: 'Voice',
    talk: 'Talk-through',
    film: 'Film',
    page: 'Page',
    link: 'Link',
  } satisfies Record<PartKind, string>,
  onScreen: (word: string, title: string) => `${word}, to be seen on screen: ${title}`,
  elsewhere: (word: string, address: string) => `${word}, in the web: ${address}`,
  goesOn: (title: string) => `${title}, goes on`,
  code: 'see it on screen',
  codeAlt: (link: string) => `QR code that opens this piece: ${link}`,
  handedIn: (day: string) => `handed in ${day}`,
  goes: (goes: number) =>
    goes <= 1 ? '' : (['second go', 'third go', 'fourth go', 'fifth go'][goes - 2] ?? `go ${goes}`),
}
