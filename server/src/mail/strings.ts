/** What Nibquill writes to people by e-mail. */
export const strings = {
  staffSubject: (school: string) => `Your Nibquill account at ${school}`,
  staff: (name: string, school: string, address: string) =>
    `Dear ${name},\n\n${school} has made a Nibquill account for you. Choose a password here:\n\n${address}\n\nThe link works once, for 30 days.\n`,
  parentSubject: (child: string) => `${child}’s work at school`,
  parent: (name: string, child: string, school: string, address: string) =>
    `Dear ${name},\n\n${school} invites you to see ${child}’s work. Open this page on your phone or computer:\n\n${address}\n\nThe page is for you alone. Please do not pass it on.\n`,
}
