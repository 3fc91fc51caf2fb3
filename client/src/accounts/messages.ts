export const messages = {
  signOut: 'Sign out',
  account: 'My account',
} as const
