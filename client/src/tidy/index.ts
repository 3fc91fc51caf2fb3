/** What other capabilities use of this one. */
export { TidyScreen } from './TidyScreen'
export { strings as tidyStrings } from './strings'
