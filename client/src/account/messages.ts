export const messages = {
  changePassword: 'Change my password',
  oldPassword: 'Password until now',
  nextPassword: 'New password, at least 10 characters',
  passwordChanged: 'Your password is changed. Everywhere else you are signed out.',
  codes: 'One-time codes',
  codesHelp:
    'With an authenticator on your phone you type a code of six digits as well as your password. Nobody gets in with your password alone.',
  codesOn: 'Switched on. {left, plural, one {# spare code is} other {# spare codes are}} left.',
  codesBegin: 'Switch on',
  codesOff: 'Switch off',
  codesPassword: 'Your password',
  codesScan:
    'Scan this with your authenticator, or type the letters into it. Then type the code it shows.',
  codesSecret: 'Letters for the authenticator',
  codesQr: 'The letters as a code for the authenticator’s camera',
  codesCode: 'Code of six digits',
  codesConfirm: 'Check the code',
  spareTitle: 'Your spare codes',
  spareHelp:
    'Each opens your account once if your phone is lost. Write them down now; they are not shown again.',
  spareDone: 'I wrote them down',
} as const
