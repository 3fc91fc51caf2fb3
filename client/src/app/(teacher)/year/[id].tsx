export { YearEditScreen as default } from '../../../year/YearEditScreen'
