export const messages = {
  stillThere: 'Are you still there?',
  stillThereHelp: 'This desk closes soon. Everything is kept.',
  iAmHere: 'I am here',
  keeping: 'Keeping {name}’s work',
  keepingHelp: 'This takes a moment. Then the next pupil can come in.',
  notKept: 'Some work has not reached the school yet. Nibquill keeps trying.',
  noNetwork: 'There is no network just now. The next pupil can come in when it is back.',
  leaveBehind: 'Go without it',
  backToDesk: 'Back to {name}’s desk',
  leaveBehindHelp: 'What has not arrived is lost then. A teacher decides.',
  signOut: 'Sign out',
  fromBefore: 'There is no network just now. What you see is from before.',
} as const
