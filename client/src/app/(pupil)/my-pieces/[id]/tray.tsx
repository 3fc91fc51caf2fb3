export { IntoTrayScreen as default } from '../../../../pieces/IntoTrayScreen'
