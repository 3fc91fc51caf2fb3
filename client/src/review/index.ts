/** What other capabilities use of this one. */
export { Desks } from './Desks'
export { useKeys } from './useKeys'
export { useRestoreHandedIn, useSecondLooks } from './reviewQueries'
