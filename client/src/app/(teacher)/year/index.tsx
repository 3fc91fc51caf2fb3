export { YearScreen as default } from '../../../school/YearScreen'
