export const ZONE = 'Europe/London'
export const DEMO_PASSWORD = 'salt marsh morning'
/** Printed at start, so that the demo can be entered; a real card's code is kept nowhere. */
export const DEMO_CARDS = {
  Wren: 'ACDEFGHJKMNPRTWX',
  Tomasz: 'CADEFGHJKMNPRTWX',
  Aoife: 'DACEFGHJKMNPRTWX',
} as const
/** Door cards of the two classes. */
export const DEMO_DOORS = { Heron: 'HACDEFGJKMNPRTWX', Plover: 'PACDEFGHJKMNRTWX' } as const
export const DEMO_STAFF = {
  heron: 'adeyemi@saltmarsh.example',
  plover: 'okafor@saltmarsh.example',
} as const
