/** What Nibquill writes to people by e-mail. */
export const strings = {
  staffSubject: (school: string) => `Your Nibquill account at ${school}`,
  staff: (name: string, school: string, address: string) =>
    `Dear ${name},\n\n${school} has made a Nibquill account for you. Choose a password here:\n\n${address}\n\nThe link works once, for 30 days.\n`,
  forgottenSubject: 'A new password for Nibquill',
  forgotten: (name: string, school: string, address: string) =>
    `Dear ${name},\n\nsomebody asked for a new password for your Nibquill account at ${school}. Choose one here:\n\n${address}\n\nThe link works once, for an hour. If it was not you, do nothing: your password stays as it is.\n`,
  codeSubject: (code: string) => `${code} is your way in to Nibquill`,
  code: (name: string, school: string, code: string) =>
    `Dear ${name},\n\ntype this code to see your child’s work at ${school}:\n\n${code}\n\nIt works once, for a quarter of an hour. If you did not ask for it, do nothing.\n`,
  requestSubject: (school: string) => `A question from ${school}`,
  request: (name: string, child: string, school: string, address: string) =>
    `Dear ${name},\n\n${school} asks whether you are a parent of ${child} as well. Open Nibquill as you always do and say yes or no at the head of your page:\n\n${address}\n\nUntil you say yes, nothing changes.\n`,
  parentSubject: (child: string) => `${child}’s work at school`,
  parent: (name: string, child: string, school: string, address: string) =>
    `Dear ${name},\n\n${school} invites you to see ${child}’s work. Open this page on your phone or computer:\n\n${address}\n\nThe page is for you alone. Please do not pass it on.\n`,
}
