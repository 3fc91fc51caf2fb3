export { RollOverScreen as default } from '../../school/RollOverScreen'
