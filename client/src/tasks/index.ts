/** What other capabilities use of this one. */
export { useTasks } from './tasksQueries'
