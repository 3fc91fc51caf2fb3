/** What other capabilities use of this one. */
export { FirstSteps } from './FirstSteps'
