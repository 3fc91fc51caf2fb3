export const strings = {
  title: 'Term book',
  help: 'A printable book of the term: one page per piece, with a code on each page that opens the piece on screen.',
  which: 'Which term',
  forecast: (pieces: number, pages: number) =>
    pieces === 0 ? 'Nothing approved in this term yet.' : `${pieces === 1 ? '1 piece' : `${pieces} pieces`}, ${pages} pages`,
  make: 'Make the book',
  making: (done: number, of: number) => `page ${done} of ${of}`,
  waiting: 'waiting its turn',
  failed: 'The book could not be made. Ask for it again.',
  download: 'Download',
  ready: (pages: number, size: string) => `${pages} pages, ${size}`,
  links: (open: number, until: string) => `${open === 1 ? '1 page code opens' : `${open} page codes open`} until ${until}`,
  noLinks: 'Its page codes no longer open anything.',
  withdraw: 'End its page codes',
  withdrawAsk: 'End the page codes of this book?',
  withdrawHelp: 'Whoever holds the printed book can read it, but the codes on its pages will open nothing any more.',
}
