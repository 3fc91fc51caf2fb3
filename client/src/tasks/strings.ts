export const strings = {
  title: 'Tasks',
  empty: 'No tasks yet',
  emptyHelp: 'Tasks that are set for your class stand here, with who has handed in what.',
  start: 'Start with a photo',
  pick: 'Pick a picture',
  folder: (name: string) => `goes into ${name}`,
  myPieces: 'What I made for it',
  gone: 'This task is closed.',
  noDue: 'no due moment',
  counts: { none: 'not begun', draft: 'on the go', submitted: 'in the tray', returned: 'another go', approved: 'in the folder' },
}
