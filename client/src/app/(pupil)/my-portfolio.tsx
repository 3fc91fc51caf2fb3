export { MyPortfolioScreen as default } from '../../portfolio/MyPortfolioScreen'
