export const messages = {
  photosOnTheirWay:
    '{count, plural, one {# photo} other {# photos}} on the way, {share, number, percent}',
  outbox: 'On its way',
  outboxWaits:
    '{count, plural, one {# photo waits for the network} other {# photos wait for the network}}',
  changesWait:
    '{count, plural, one {What you did to # piece waits for the network} other {What you did to # pieces waits for the network}}',
  outboxKept: 'It is safe on this tablet',
  outboxNotKept: 'This tablet cannot keep it, so leave this page open',
  outboxTryAgain: 'Try again now',
  addPhoto: 'Add a photo',
  teacherSays: '{name} says',
  filed: 'You put it in {from}. Your teacher put it in {into}.',
  earlierVersions: 'Earlier goes',
  versionLine:
    '{number, plural, =1 {First go} =2 {Second go} =3 {Third go} =4 {Fourth go} =5 {Fifth go} other {Go #}}, handed in {day}',
  wordsNotKept: 'This tablet cannot keep what you did. Stay here until it has arrived.',
  understood: 'I see',
  tryOnceMore: 'Try again',
  twoTablets: 'Something else was written on another tablet. Which shall it be?',
  whose: {
    mine: 'On this tablet',
    theirs: 'On the other tablet',
  },
  take: {
    mine: 'Take the words of this tablet',
    theirs: 'Take the words of the other tablet',
  },
  untitled: 'No name yet',
  forEveryone: 'A piece for everyone',
} as const
