/** What other capabilities use of this one. */
export { useLying, useOfferSheet, usePutSheet, useTask, useTasks } from './tasksQueries'
