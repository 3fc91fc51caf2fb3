export const strings = {
  mine: 'My folders',
  title: 'Folders',
  empty: 'No folders yet',
  emptyHelp: 'Folders for your class will stand here.',
  emptyFolder: 'Nothing in it yet',
  emptyFolderHelp: 'A piece comes here when the teacher approves it.',
  more: 'Show more',
  wholeSchool: 'whole school',
  parentsDoNotSee: 'parents do not see it',
}
