/** What other capabilities use of this one. */
export { usePutSheet, useTask, useTasks } from './tasksQueries'
