export { RollOverScreen as default } from '../../year/RollOverScreen'
