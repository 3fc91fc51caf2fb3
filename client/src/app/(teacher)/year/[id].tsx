export { YearEditScreen as default } from '../../../school/YearEditScreen'
