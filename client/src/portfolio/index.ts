/** What other capabilities use of this one. */
export { Chapters } from './Chapters'
export { PickBox } from './PickBox'
export { usePortfolio } from './portfolioQueries'
export { t as portfolioWords } from './words'
