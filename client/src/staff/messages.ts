export const messages = {
  staffHelp:
    'Who works here, and who teaches which class. A new member gets a link to choose a password: {mails, select, yes {by mail} other {there is no mail server, so it waits in the post box to be handed on}}.',
  addStaff: 'Add a member of staff',
  email: 'E-mail address',
  staffFirst: 'What pupils call them, for example Mr or Ms',
  role: 'Role',
  roles: {
    teacher: 'Teacher',
    office: 'Office lead',
  },
  teaches: 'Teaches',
  leads: 'Leads the school: sets up years, classes and staff',
  invited: 'has not chosen a password yet',
  resend: 'Send the link again',
  sent: '{mails, select, yes {A link is on its way to {email}.} other {The link for {email} waits in the post box, to be handed on.}}',
  invite: 'Make the account',
  codesOn: 'Signs in with one-time codes as well.',
  codesOff: 'Switch them off, the phone is lost',
  staffLeave: 'Has left',
  staffLeaveAsk: 'Has {name} left?',
  staffLeaveHelp:
    'The account is signed out at once and teaches nothing any more. Give the classes to somebody else first, so that no tray is left alone.',
  alone: 'Nobody teaches {names}.',
  postHelp:
    'Letters that went out by mail. Without a mail server they stay here, to be opened and handed on.',
  openLetter: 'Open the letter',
  openAsk: 'Open the letter to {to}?',
  openHelp:
    'It may hold a way in. That you opened it is noted, and the teachers it concerns are told.',
  blanked: 'The way in is left out: whoever has come in before is let in by nobody else.',
  noMail: 'Nothing has been sent yet',
  mailStates: {
    waiting: 'on its way',
    sent: 'sent',
    kept: 'kept here',
    failed: 'could not be sent, will be tried again',
  },
  noServer: 'There is no mail server, so letters are kept here and go nowhere.',
} as const
