export const messages = {
  title: 'Term book',
  takeHome: 'Take it all home',
  takeHomeHelp:
    'A book of the term to print or to keep: each piece on a page, with a code that opens it on a screen.',
  takeHomePieces: '{pieces, plural, one {# piece} other {# pieces}}',
  save: 'Save the book',
  close: 'Close',
  changed: 'Something in it has changed meanwhile. It is being made again.',
  byFamily: 'asked for by the family',
  help: 'A printable book of the term: the picked pieces, or all approved ones where none is picked. A code on each page opens its piece on screen.',
  which: 'Which term',
  forWhom: 'For whom',
  madeFor: {
    home: 'For home',
    school: 'For school',
  },
  madeForHelp: {
    home: 'Without what the family may not see. Whoever holds the book can open its page codes.',
    school: 'Nothing is left out. Its page codes open for teachers who are signed in.',
  },
  withMarks: 'What teachers wrote on the work',
  marked: {
    false: 'Not in the book',
    true: 'In the book',
  },
  isMarked: 'with what teachers wrote on the work',
  leftOut:
    '{pieces, plural, one {# piece stays out of this book} other {# pieces stay out of this book}}',
  folderClosed: '{title}: its folder is not open to parents',
  noConsent: '{title}: no consent to share for {names}',
  stopped:
    'Something in it may not be shown at home any more, so it is not handed out. Make it again.',
  forecast:
    '{pieces, plural, =0 {There is nothing for this book yet.} other {{pieces, plural, one {# piece} other {# pieces}}, {pages, plural, one {# page} other {# pages}}}}',
  make: 'Make the book',
  making: 'page {done, number} of {of, number}',
  waiting: 'waiting its turn',
  failed: 'The book could not be made. Ask for it again.',
  download: 'Download',
  ready: '{pages, plural, one {# page} other {# pages}}, {size}',
  links:
    '{open, plural, one {# page code opens} other {# page codes open}} {madeFor, select, school {for teachers } other {}}until {until}',
  noLinks: 'Its page codes no longer open anything.',
  withdraw: 'End its page codes',
  withdrawAsk: 'End the page codes of this book?',
  withdrawHelp:
    'Whoever holds the printed book can read it, but the codes on its pages will open nothing any more.',
} as const
