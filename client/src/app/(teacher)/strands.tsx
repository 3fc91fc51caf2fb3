export { StrandsScreen as default } from '../../year/StrandsScreen'
