export const strings = {
  title: 'Term book',
  help: 'A printable book of the term: the picked pieces, or all approved ones where none is picked. A code on each page opens its piece on screen.',
  which: 'Which term',
  forWhom: 'For whom',
  madeFor: { home: 'For home', school: 'For school' },
  madeForHelp: {
    home: 'Without what the family may not see. Whoever holds the book can open its page codes.',
    school: 'Nothing is left out. Its page codes open for teachers who are signed in.',
  },
  leftOut: (pieces: number) =>
    pieces === 1 ? '1 piece stays out of this book' : `${pieces} pieces stay out of this book`,
  folderClosed: (title: string) => `${title}: its folder is not open to parents`,
  noConsent: (title: string, names: string) => `${title}: no consent to share for ${names}`,
  stopped:
    'Something in it may not be shown at home any more, so it is not handed out. Make it again.',
  forecast: (pieces: number, pages: number) =>
    pieces === 0
      ? 'There is nothing for this book yet.'
      : `${pieces === 1 ? '1 piece' : `${pieces} pieces`}, ${pages} pages`,
  make: 'Make the book',
  making: (done: number, of: number) => `page ${done} of ${of}`,
  waiting: 'waiting its turn',
  failed: 'The book could not be made. Ask for it again.',
  download: 'Download',
  ready: (pages: number, size: string) => `${pages} pages, ${size}`,
  links: (open: number, until: string, madeFor: 'home' | 'school') =>
    `${open === 1 ? '1 page code opens' : `${open} page codes open`}${madeFor === 'school' ? ' for teachers' : ''} until ${until}`,
  noLinks: 'Its page codes no longer open anything.',
  withdraw: 'End its page codes',
  withdrawAsk: 'End the page codes of this book?',
  withdrawHelp:
    'Whoever holds the printed book can read it, but the codes on its pages will open nothing any more.',
}
