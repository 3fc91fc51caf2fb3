export { StrandsScreen as default } from '../../school/StrandsScreen'
