/** What other capabilities use of this one. */
export { BookBox } from './BookBox'
export { useBooks } from './bookQueries'
export { TakeHome } from './TakeHome'
