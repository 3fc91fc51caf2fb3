/** What other capabilities use of this one. */
export { Chapters } from './Chapters'
export { PickBox } from './PickBox'
export { usePortfolio } from './portfolioQueries'
export { strings as portfolioStrings } from './strings'
