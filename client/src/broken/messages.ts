export const messages = {
  broken: 'Something broke. Your work is safe.',
  brokenHelp: 'Go back to where you begin, or try this page again.',
  brokenBack: 'Back to the beginning',
} as const
