/** What other capabilities use of this one. */
export { FirstSteps, useForFirstSteps } from './FirstSteps'
