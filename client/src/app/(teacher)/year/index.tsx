export { YearScreen as default } from '../../../year/YearScreen'
