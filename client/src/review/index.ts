/** What other capabilities use of this one. */
export { Judging } from './Judging'
export { useKeys } from './useKeys'
export { useSecondLooks } from './reviewQueries'
