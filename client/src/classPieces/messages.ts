export const messages = {
  forEveryoneHelp:
    'An outing, a number talk: the same piece begins on every desk, and each pupil adds to their own until you close it. Closing puts what was made into the tray.',
  startOne: 'Start one',
  startTitle: 'Name of the piece',
  startInstructions: 'What to put in',
  startFolder: 'Folder',
  startDo: 'Start it for everyone',
  started: 'It is on every desk now.',
  noneStarted: 'None yet',
  begun: '{begun, number} of {of, number} have put something in',
  isClosed: 'closed',
  closeIt: 'Close it',
  openAgain: 'Open it again',
  closedAndIn: 'Closed. What was made is in the tray.',
} as const
