/** Words that belong to no capability. */
export const strings = {
  fromBefore: 'There is no network just now. What you see is from before.',
  waitsForNetwork: 'There is no network just now. This comes as soon as it is back.',
  loading: 'Just a moment',
  broken: 'Something broke. Your work is safe.',
  brokenHelp: 'Go back to where you begin, or try this page again.',
  brokenBack: 'Back to the beginning',
  tryAgain: 'Try again',
  close: 'Close',
  back: 'Back',
  cancel: 'Leave it',
  listen: 'Listen',
  stopListening: 'Stop listening',
  unreachable: 'Nibquill cannot be reached just now. Nothing is lost; try again in a moment.',
  states: {
    draft: 'on my desk',
    submitted: 'in the tray',
    returned: 'another go',
    approved: 'in the folder',
  },
  goes: (goes: number) =>
    goes <= 1 ? '' : (['second go', 'third go', 'fourth go', 'fifth go'][goes - 2] ?? `go ${goes}`),
  pieces: (count: number) => (count === 1 ? '1 piece' : `${count} pieces`),
  notFoundTitle: 'Nothing here',
  notFound: 'This page is empty, or it is not yours to see.',
  home: 'To the start',
}
