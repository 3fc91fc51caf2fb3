/** Where each role begins. */
export const START = {
  pupil: '/desk',
  teacher: '/tray',
  office: '/class',
  parent: '/family',
} as const
