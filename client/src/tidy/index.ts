/** What other capabilities use of this one. */
export { TidyScreen } from './TidyScreen'
export { t as tidyWords } from './words'
